//! Which weekdays carry a number of waterings, as evenly as the allowed days let them.

use super::days::Days;

/// Weekdays for a number of waterings, as even as the allowed days let them be.
#[must_use]
pub fn even_days(allowed: Days, waterings: u8) -> Days {
    choose_days(allowed, waterings, &[0.0; 7])
}

/// The best days among those allowed: the widest least gap, then the most even gaps, then the
/// least load already on them; of equals the earliest in the week. Fewer days than asked for when
/// fewer are allowed.
#[must_use]
pub(crate) fn choose_days(allowed: Days, waterings: u8, load: &[f64; 7]) -> Days {
    let count = waterings.clamp(1, 7).min(allowed.count());
    let cost = |days: Days| {
        let gaps = days.gaps();
        let least = gaps.iter().min().copied().unwrap_or(7);
        let unevenness: f64 = gaps.iter().map(|g| f64::from(*g).powi(2)).sum();
        let busy: f64 = days.iter().map(|d| load[d.num_days_from_monday() as usize]).sum();
        (7 - least, unevenness, busy)
    };
    let mut best = Days::NONE;
    let mut best_cost = (u8::MAX, f64::INFINITY, f64::INFINITY);
    for bits in 0..=Days::ALL.bits() {
        let days = Days::from_bits(bits);
        if days.count() != count || days.and(allowed) != days || count == 0 {
            continue;
        }
        let cost = cost(days);
        if cost.partial_cmp(&best_cost).is_some_and(std::cmp::Ordering::is_lt) {
            (best, best_cost) = (days, cost);
        }
    }
    best
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::Weekday::{Fri, Mon, Sat, Sun, Thu, Tue, Wed};

    #[test]
    fn waterings_are_spread_and_keep_to_what_is_allowed() {
        let none = [0.0; 7];
        assert_eq!(choose_days(Days::ALL, 3, &none), Days::of([Mon, Wed, Fri]));
        assert_eq!(choose_days(Days::ALL.without(Sun), 2, &none), Days::of([Mon, Thu]));
        assert_eq!(choose_days(Days::of([Tue, Sat]), 3, &none), Days::of([Tue, Sat]));
        assert_eq!(choose_days(Days::ALL, 7, &none), Days::ALL);
        assert!(choose_days(Days::NONE, 2, &none).is_empty());
    }

    #[test]
    fn a_second_program_goes_to_the_days_that_are_free() {
        let mut load = [0.0; 7];
        for day in [Mon, Wed, Fri] {
            load[day.num_days_from_monday() as usize] = 3.0;
        }
        assert_eq!(choose_days(Days::ALL, 2, &load), Days::of([Tue, Sat]));
        assert_eq!(choose_days(Days::ALL, 1, &load), Days::of([Tue]));
    }
}
