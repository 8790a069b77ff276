//! Weather files of other layouts, as another reader of them reads them.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

use upland_formats::weather::{Column, Mapping, Table, read, to_days};

const EPW: &[u8] = include_bytes!("files/pvgis-excerpt.epw");
const BY_PVLIB: &[u8] = include_bytes!("files/pvgis-excerpt.days.csv");

/// A typical year joined to days against pvlib's reader (see files/README.md): the same days, every value within half
/// a unit of the fourth decimal.
#[test]
fn a_typical_year_joins_to_the_days_that_pvlib_reads() {
    let joined = to_days(EPW, chrono_tz::UTC).unwrap().joined().unwrap();
    let (ours, theirs) = (Table::parse(joined.as_bytes()).unwrap(), Table::parse(BY_PVLIB).unwrap());
    assert_eq!((ours.len(), theirs.len()), (36, 36));
    assert_eq!(ours.texts(0), {
        let mut dates = theirs.texts(0);
        dates.sort_unstable();
        dates
    });
    let days = |table: &Table| {
        let reading = read(table, &Mapping::by_name(table.headers(), &[]).unwrap(), None);
        assert!(reading.faults.is_empty(), "{:?}", reading.faults);
        let mut days: Vec<_> = reading.rows.iter().map(|r| r.day).collect();
        days.sort_by_key(|day| day.date);
        days
    };
    let mut compared = 0;
    for (a, b) in days(&ours).iter().zip(&days(&theirs)) {
        for column in Column::ALL.into_iter().filter_map(Column::element) {
            assert_eq!(column.of(a).is_some(), column.of(b).is_some(), "{} {column:?}", a.date);
            if let (Some(a_value), Some(b_value)) = (column.of(a), column.of(b)) {
                assert!((a_value - b_value).abs() <= 1.001e-4, "{} {column:?}: {a_value} {b_value}", a.date);
                compared += 1;
            }
        }
    }
    assert_eq!(compared, 36 * 5);
    let head = ours.head();
    assert_eq!((head.latitude, head.longitude, head.elevation_m), (Some(45.0), Some(8.0), Some(250.0)));
    assert_eq!(head.joined_rows, Some(36 * 24));
}
