//! A position as people type or paste it: decimal degrees, or degrees, minutes and seconds.

/// Degrees from `47.518`, `-122,248`, `47° 31.1' N` or `47°31'04.8"N`; south and west are negative.
pub(crate) fn degrees(text: &str) -> Option<f64> {
    let text = text.trim();
    let upper = text.to_uppercase();
    let side = upper.chars().find(|c| "NSEW".contains(*c));
    let negative = text.starts_with(['-', '\u{2212}']) || matches!(side, Some('S' | 'W'));
    let plain = text.replace(',', ".");
    let numbers: Vec<f64> = plain
        .split(|c: char| !(c.is_ascii_digit() || c == '.'))
        .filter(|part| !part.is_empty())
        .map(|part| part.parse().ok())
        .collect::<Option<_>>()?;
    let known = |c: char| c.is_ascii_digit() || c.is_whitespace() || "+-\u{2212}.,°º'′’\"″”NSEWnsew".contains(c);
    let parts = match numbers.as_slice() {
        [_, rest @ ..] if rest.len() <= 2 && rest.iter().all(|part| *part < 60.0) => numbers.as_slice(),
        _ => return None,
    };
    let value = parts.iter().rev().fold(0.0, |sum, part| part + sum / 60.0);
    text.chars().all(known).then_some(if negative { -value } else { value })
}

/// Latitude and longitude from one text that holds both, as maps copy them.
pub(crate) fn both(text: &str) -> Option<(f64, f64)> {
    let upper = text.to_uppercase();
    let after_latitude = upper.find(['N', 'S']).map(|at| at + 1).filter(|at| *at < text.len());
    let (latitude, longitude) = match after_latitude {
        Some(at) => text.split_at_checked(at)?,
        None => text.split_once([';', ' ']).or_else(|| text.split_once(','))?,
    };
    let clean = |part: &str| part.trim().trim_matches([',', ';']).trim().to_owned();
    Some((degrees(&clean(latitude))?, degrees(&clean(longitude))?))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn near(text: &str, wanted: f64) {
        let found = degrees(text).unwrap_or_else(|| panic!("{text} is not read"));
        assert!((found - wanted).abs() < 1e-6, "{text}: {found}");
    }

    #[test]
    fn every_usual_notation_is_read() {
        near("47.518", 47.518);
        near("\u{2212}122,248", -122.248);
        near("47° 31.08' N", 47.518);
        near("122°14'52.8\"W", -122.248);
        near("33 51 S", -33.85);
    }

    #[test]
    fn both_come_from_one_text() {
        for text in ["47.518, -122.248", "47.518 -122.248", "47°31'04.8\"N 122°14'52.8\"W", "47.518N, 122.248W"] {
            let (latitude, longitude) = both(text).unwrap_or_else(|| panic!("{text} is not read"));
            assert!((latitude - 47.518).abs() < 1e-6 && (longitude + 122.248).abs() < 1e-6, "{text}");
        }
    }

    #[test]
    fn nonsense_is_no_position() {
        for text in ["", "north", "47.5.1", "47 61 0", "1 2 3 4", "12 apples", "NaN"] {
            assert_eq!(degrees(text), None, "{text}");
        }
        assert_eq!(both("47.518"), None);
    }
}
