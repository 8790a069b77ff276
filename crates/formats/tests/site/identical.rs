//! Import of an export is identical, for any place that can be.

use proptest::prelude::*;
use upland_core::climate::normals::MonthNormal;
use upland_core::place::{Place, Position};
use upland_core::testing::{any_controller, any_panel, any_rules};
use upland_formats::site::{Site, read_site, write_site};

fn site() -> impl Strategy<Value = Site> {
    let normals = proptest::option::of(proptest::array::uniform12((0.0f64..12.0, proptest::option::of(0.0f64..300.0))));
    (
        (-60.0f64..60.0, -179.0f64..179.0),
        any_rules(),
        normals,
        any_controller("Gate"),
        any_controller("Wall"),
        any_panel(),
    )
        .prop_map(|((lat, lon), rules, normals, gate, wall, panel)| Site {
            place: Place {
                name: "Hill".into(),
                house_number: "14".into(),
                position: Position::new(lat, lon, 214.0).unwrap(),
                zone: chrono_tz::America::Los_Angeles,
            },
            rules,
            weather: normals.map(|months| {
                let months = months.map(|(et0_mm_per_day, rain_mm)| MonthNormal { et0_mm_per_day, rain_mm });
                ("Bench".to_owned(), months)
            }),
            controllers: vec![gate, wall],
            as_found: vec![(1, panel)],
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn import_of_an_export_is_identical(site in site()) {
        let text = write_site(&site);
        let back = read_site(text.as_bytes());
        prop_assert_eq!(back.as_ref(), Ok(&site), "{}", text);
        prop_assert_eq!(write_site(&back.unwrap()), text);
    }
}
