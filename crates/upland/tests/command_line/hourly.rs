//! Hourly files on the command line.

use super::{text, upland};

const FALLON: [&str; 10] = [
    "--latitude",
    "39.4575",
    "--longitude",
    "-118.77388",
    "--elevation",
    "1208.5",
    "--wind-height",
    "3",
    "--timestep",
    "hourly",
];

fn fallon(command: &str, more: &[&str], input: &str) -> std::process::Output {
    upland(&[&[command], &FALLON[..], more, &["-"]].concat(), input)
}

fn cells(line: &str) -> Vec<&str> {
    line.split(',').collect()
}

/// The hour of the refet package's tests: ETos 0.606352, ETrs 0.71964 mm (tables of ASCE-EWRI 2005).
#[test]
fn et0_of_an_hour() {
    // 49.36 °F of dew point at 91.80 °F are 23.5415 % of humidity; 61.16 langleys are 711.29 W/m².
    let input =
        "time,temp_c,rh_pct,wind_ms,solar_w_m2\n2015-07-01T11:00:00-07:00,33.222222,23.541443,1.4886432,711.290889\n";
    for (reference, printed) in [("short", 0.606_352), ("tall", 0.719_638)] {
        let out = fallon("et0", &["--reference", reference], input);
        let stdout = text(&out.stdout);
        let (head, row) = stdout.trim_end().split_once('\n').unwrap();
        assert_eq!(head, "time,et0_mm,method");
        let row = cells(row);
        assert_eq!((row[0], row[2]), ("2015-07-01T11:00:00-07:00", &*format!("asce-pm-{reference}-hourly")));
        assert!((row[1].parse::<f64>().unwrap() - printed).abs() < 1e-5, "{row:?}");
        assert_eq!(out.status.code(), Some(0));
    }
}

#[test]
fn a_night_says_where_its_cloud_came_from_and_a_blank_hour_has_no_figure() {
    let input =
        "when,T air,solar_w_m2\n2015-07-01T18:00:00Z,33,700\n2015-07-02T06:00:00Z,18,0\n2015-07-02T07:00:00Z,,0\n";
    let out = fallon("et0", &["--column", "time=when", "--column", "temp_c=T air"], input);
    let stdout = text(&out.stdout);
    let methods: Vec<&str> = stdout.lines().skip(1).map(|l| cells(l)[2]).collect();
    assert_eq!(
        methods,
        [
            "asce-pm-short-hourly+humidity-from-tmin+wind-assumed",
            "asce-pm-short-hourly+cloud-carried+humidity-from-tmin+wind-assumed",
            "missing"
        ]
    );
    assert_eq!(out.status.code(), Some(1));
    insta::assert_snapshot!(text(&out.stderr), @r"
    upland: line 3: 11 hours are missing before this one
    upland: line 4: the temperature is missing, so there is no reference ET
    ");
}

#[test]
fn bad_hours_are_said_with_their_lines_and_nothing_is_printed() {
    let out =
        fallon("et0", &[], "time,temp_c\n2015-07-01 18:00,20\n2015-07-01T18:00:00Z,20\n2015-07-01T18:30:00Z,20\n");
    assert_eq!((out.status.code(), text(&out.stdout).as_str()), (Some(1), ""));
    insta::assert_snapshot!(text(&out.stderr), @r#"
    upland: line 2: time "2015-07-01 18:00" is not written like 2015-07-01T14:00:00-07:00 (RFC 3339, with its offset)
    upland: line 4: the hour overlaps the one on line 3
    upland: 2 of 3 rows have errors; nothing was worked out
    "#);
}

#[test]
fn columns_belong_to_their_kind_of_file() {
    let out = fallon("et0", &["--column", "tmax_c=T"], "time,temp_c\n2015-07-01T18:00:00Z,20\n");
    assert_eq!(out.status.code(), Some(2));
    let daily = [&["et0"], &FALLON[..8], &["--column", "temp_c=T", "-"]].concat();
    assert_eq!(upland(&daily, "date,tmax_c,tmin_c\n2015-07-01,20,9\n").status.code(), Some(2));
}

/// A year of hours under a plain wave: twelve months, the peak in July, and a day without one hour left out.
#[test]
fn a_budget_of_a_year_of_hours() {
    let mut input = String::from("time,temp_c,rain_mm\n");
    let first = chrono::DateTime::parse_from_rfc3339("2015-01-01T00:00:00-08:00").unwrap();
    for hour in 0..365 * 24 {
        if hour == 30 * 24 {
            continue;
        }
        let season = ((f64::from(hour) / 24.0 - 105.0) / 365.0 * std::f64::consts::TAU).sin();
        let day = ((f64::from(hour % 24) - 9.0) / 24.0 * std::f64::consts::TAU).sin();
        let start = first + chrono::TimeDelta::hours(i64::from(hour));
        input.push_str(&format!("{},{:.2},0\n", start.to_rfc3339(), 14.0 + 10.0 * season + 7.0 * day));
    }
    let out = fallon("budget", &[], &input);
    assert_eq!(out.status.code(), Some(0), "{}", text(&out.stderr));
    let stdout = text(&out.stdout);
    let percents: Vec<f64> = stdout.lines().skip(1).map(|l| cells(l)[2].parse().unwrap()).collect();
    assert_eq!(percents.len(), 12);
    assert_eq!(percents[6], 100.0);
    assert!(percents[0] < 35.0 && percents[11] < 35.0, "{percents:?}");
    assert_eq!(text(&out.stderr), "upland: line 722: 1 hour is missing before this one\n");
}
