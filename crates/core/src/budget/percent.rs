use crate::climate::normals::Normals;
use crate::controller::{Capability, Preset};
use crate::quantity::{MonthOfYear, Percent};

/// The steps and the range that a percent is rounded to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PercentRule {
    /// Step, counted from 0.
    pub step: Percent,
    /// Lowest percent.
    pub min: Percent,
    /// Highest percent.
    pub max: Percent,
}

/// A month of the plain budget.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BudgetRow {
    /// The month.
    pub month: MonthOfYear,
    /// Reference ET, mm a day.
    pub et0_mm_per_day: f64,
    /// Percent of the peak month.
    pub percent_exact: f64,
    /// The nearest percent that can be dialled.
    pub percent_dialled: Percent,
}

/// The percent of each month from reference ET alone, the peak month at 100.
///
/// `percent(m) = ET0(m) / ET0(peak) x 100`, then to the step and into the range. Source: own
/// method, common practice. With no ET0 at all in any month every percent is 0 before rounding.
#[must_use]
pub fn monthly_percents(normals: &Normals, rule: PercentRule) -> [BudgetRow; 12] {
    let peak = normals.iter().map(|n| n.et0_mm_per_day).fold(0.0, f64::max);
    let capability = Capability {
        percent_step: rule.step,
        percent_min: rule.min,
        percent_max: rule.max,
        ..Preset::Plain.capability()
    };
    MonthOfYear::ALL.map(|month| {
        let et0_mm_per_day = normals[month.index()].et0_mm_per_day;
        let percent_exact = if peak > 0.0 { et0_mm_per_day / peak * 100.0 } else { 0.0 };
        BudgetRow { month, et0_mm_per_day, percent_exact, percent_dialled: capability.dial(percent_exact) }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::climate::normals::MonthNormal;

    #[test]
    fn the_peak_is_at_a_hundred_in_either_hemisphere() {
        for peak in [0, 6] {
            let mut normals = [MonthNormal { et0_mm_per_day: 1.0, rain_mm: None }; 12];
            normals[peak].et0_mm_per_day = 8.0;
            let rule =
                PercentRule { step: Percent::literal(10), min: Percent::literal(10), max: Percent::literal(200) };
            let rows = monthly_percents(&normals, rule);
            assert_eq!(rows[peak].percent_dialled.get(), 100);
            assert_eq!(rows[3].percent_exact, 12.5);
            assert_eq!(rows[3].percent_dialled.get(), 10);
        }
    }
}
