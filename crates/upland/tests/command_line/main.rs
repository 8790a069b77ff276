//! The command line as a script uses it: the binary itself, files and standard input.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

mod hourly;

use std::io::{Read, Write};
use std::process::{Command, Output, Stdio};

const PLACE: [&str; 6] = ["--latitude", "47.61", "--longitude", "-122.33", "--elevation", "50"];

fn upland(args: &[&str], input: &str) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_upland"))
        .args(args)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    // A command that refuses its words does not read: a closed pipe is then no fault here.
    let _ = child.stdin.take().unwrap().write_all(input.as_bytes());
    child.wait_with_output().unwrap()
}

fn text(bytes: &[u8]) -> String {
    String::from_utf8(bytes.to_vec()).unwrap()
}

fn et0(more: &[&str], input: &str) -> Output {
    upland(&[&["et0"], &PLACE[..], more, &["-"]].concat(), input)
}

const SEATTLE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/seattle-weather.csv");
const SEATTLE_COLUMNS: [&str; 8] = [
    "--column",
    "tmax_c=temp_max",
    "--column",
    "tmin_c=temp_min",
    "--column",
    "wind_ms=wind",
    "--column",
    "rain_mm=precipitation",
];

/// FAO-56 example 18 as a file: printed 3.9 mm.
#[test]
fn et0_of_a_measured_day() {
    let input = "date,tmax_c,tmin_c,rhmax_pct,rhmin_pct,wind_ms,solar_mj_m2\n2015-07-06,21.5,12.3,84,63,2.078,22.07\n";
    let out = upland(&["et0", "--latitude", "50.80", "--longitude", "4.35", "--elevation", "100", "-"], input);
    let stdout = text(&out.stdout);
    let (head, row) = stdout.trim_end().split_once('\n').unwrap();
    assert_eq!(head, "date,et0_mm,method");
    let cells: Vec<&str> = row.split(',').collect();
    assert_eq!((cells[0], cells[2]), ("2015-07-06", "asce-pm-short"));
    assert!((cells[1].parse::<f64>().unwrap() - 3.88).abs() < 0.005);
    assert_eq!(out.status.code(), Some(0));
}

#[test]
fn et0_in_the_south_takes_a_negative_latitude() {
    let out = upland(
        &["et0", "--latitude", "-36.1", "--longitude", "146.9", "--elevation", "165", "-"],
        "date,tmax_c,tmin_c\n2020-01-15,32,16\n2020-07-15,13,3\n",
    );
    let stdout = text(&out.stdout);
    let mm: Vec<f64> = stdout.lines().skip(1).map(|l| l.split(',').nth(1).unwrap().parse().unwrap()).collect();
    assert!(mm[0] > 5.0 && mm[1] < 2.0, "{mm:?}");
}

/// `upland et0 … | head`: who has read enough closes the pipe, which is no fault to complain about.
#[test]
fn a_reader_may_stop_before_the_end() {
    let first = chrono::NaiveDate::from_ymd_opt(2000, 1, 1).unwrap();
    let days = first.iter_days().take(9000).map(|day| format!("{day},21.5,12.3\n"));
    let input: String = std::iter::once("date,tmax_c,tmin_c\n".to_owned()).chain(days).collect();
    let mut child = Command::new(env!("CARGO_BIN_EXE_upland"))
        .args([&["et0"], &PLACE[..], &["-"]].concat())
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    child.stdin.take().unwrap().write_all(input.as_bytes()).unwrap();
    // More than a pipe holds is left unread.
    let mut head = [0; 18];
    child.stdout.take().unwrap().read_exact(&mut head).unwrap();
    assert_eq!(&head, b"date,et0_mm,method");
    let mut said = String::new();
    child.stderr.take().unwrap().read_to_string(&mut said).unwrap();
    assert!(!said.contains("pipe"), "{said}");
    assert_eq!(child.wait().unwrap().code(), Some(0));
}

#[test]
fn bad_rows_are_said_with_their_lines_and_nothing_is_printed() {
    let out = et0(&[], "date,tmax_c,tmin_c\n2020-01-01,3,9\n2020-02-30,3,1\n");
    assert_eq!((out.status.code(), text(&out.stdout).as_str()), (Some(1), ""));
    insta::assert_snapshot!(text(&out.stderr), @r#"
    upland: line 2: the lowest temperature 9 is above the highest 3
    upland: line 3: date "2020-02-30" is not a day written as year-month-day
    upland: 2 of 2 rows have errors; nothing was worked out
    "#);
}

#[test]
fn a_flag_leaves_the_status_at_0_and_a_row_without_a_figure_makes_it_1() {
    let flagged = et0(&[], "date,tmax_c,tmin_c,rhmax_pct\n2020-01-01,9,3,101\n2020-01-04,9,3,90\n");
    assert_eq!(flagged.status.code(), Some(0));
    let said = text(&flagged.stderr);
    assert!(
        said.contains("line 2: humidity 101 % is taken as 100") && said.contains("line 3: 2 days are missing"),
        "{said}"
    );
    let blank = et0(&[], "date,tmax_c,tmin_c\n2020-01-01,9,\n2020-01-02,9,3\n");
    assert_eq!(blank.status.code(), Some(1));
    assert!(text(&blank.stdout).contains("2020-01-01,,missing\n"));
}

#[test]
fn wrong_usage_is_2() {
    for args in [
        &["et0", "--latitude", "95", "--longitude", "0", "--elevation", "0", "-"][..],
        &["et0", "--longitude", "0", "--elevation", "0", "-"],
        &["et0", "--latitude", "5", "--longitude", "0", "--elevation", "0", "--wind-height", "0", "-"],
        &["et0", "--latitude", "5", "--longitude", "0", "--elevation", "0", "--column", "tmax=x", "-"],
        &["budget", "--latitude", "5", "--longitude", "0", "--elevation", "0", "--min", "90", "--max", "20", "-"],
        &["sun", "--latitude", "5", "--longitude", "0", "--timezone", "Nowhere/Town", "--date", "2025-01-01"],
    ] {
        assert_eq!(upland(args, "date,tmax_c,tmin_c\n").status.code(), Some(2), "{args:?}");
    }
}

#[test]
fn files_that_cannot_be_read_say_why() {
    let missing = upland(&[&["et0"], &PLACE[..], &["nowhere.csv"]].concat(), "");
    assert_eq!(missing.status.code(), Some(1));
    assert!(text(&missing.stderr).contains("nowhere.csv cannot be opened"));
    for (input, said) in [("\u{1}PNG", "not a text file"), ("date,tmax_c\n2020-01-01,1\n", "no column is tmin_c")] {
        let out = et0(&[], input);
        assert_eq!(out.status.code(), Some(1));
        assert!(text(&out.stderr).contains(said), "{}", text(&out.stderr));
    }
}

/// The real daily record of Seattle, 2012-2015 (NOAA): temperatures and wind.
#[test]
fn the_seattle_record_gives_a_budget() {
    let out = upland(&[&["budget"], &PLACE[..], &SEATTLE_COLUMNS, &[SEATTLE]].concat(), "");
    assert_eq!(out.status.code(), Some(0), "{}", text(&out.stderr));
    let stdout = text(&out.stdout);
    let rows: Vec<Vec<f64>> =
        stdout.lines().skip(1).map(|l| l.split(',').map(|c| c.parse().unwrap()).collect()).collect();
    assert_eq!(rows.len(), 12);
    assert_eq!((rows[6][2], rows[6][3]), (100.0, 100.0), "July is the peak");
    // Golden to four decimals; the files themselves carry full precision.
    let table: Vec<String> =
        rows.iter().map(|r| format!("{:>2} {:.4} {:>8.4} {:>3}", r[0], r[1], r[2], r[3])).collect();
    insta::assert_snapshot!("seattle_budget", table.join("\n"));
    let dialled: Vec<u16> = rows.iter().map(|r| r[3] as u16).collect();
    insta::assert_snapshot!(format!("{dialled:?}"), @"[10, 20, 40, 50, 70, 90, 100, 90, 60, 30, 20, 10]");
}

#[test]
fn the_seattle_record_by_its_wind_on_a_ten_metre_mast() {
    let args = [&["et0"], &PLACE[..], &SEATTLE_COLUMNS, &["--wind-height", "10", SEATTLE]].concat();
    let out = upland(&args, "");
    let stdout = text(&out.stdout);
    assert_eq!(stdout.lines().count(), 1462);
    let first: Vec<String> = stdout
        .lines()
        .skip(1)
        .step_by(90)
        .map(|l| {
            let cells: Vec<&str> = l.split(',').collect();
            format!("{} {:.4}", cells[0], cells[1].parse::<f64>().unwrap())
        })
        .collect();
    insta::assert_snapshot!("seattle_et0", first.join("\n"));
    assert!(stdout.lines().nth(1).unwrap().ends_with(",asce-pm-short+humidity-from-tmin+sun-from-range"));
}

#[test]
fn a_budget_takes_a_whole_year() {
    let out = upland(&[&["budget"], &PLACE[..], &["-"]].concat(), "date,tmax_c,tmin_c\n2020-01-01,9,3\n");
    assert_eq!(out.status.code(), Some(1));
    assert!(text(&out.stderr).contains("no day with a reference ET in month 2, 3, 4"), "{}", text(&out.stderr));
}

/// NOAA's equations: 06:28:06 and 17:46:47 at Fallon on 29 February 2024 (`noaa_solar.csv`).
#[test]
fn sun_of_a_day_and_of_a_day_without_one() {
    let fallon =
        ["sun", "--latitude", "39.4575", "--longitude", "-118.77388", "--timezone", "America/Los_Angeles", "--date"];
    let out = upland(&[&fallon[..], &["2024-02-29"]].concat(), "");
    let stdout = text(&out.stdout);
    let rows: Vec<&str> = stdout.lines().collect();
    assert_eq!(rows[0], "event,time,elevation_deg,azimuth_deg");
    assert!(rows[1].starts_with("sunrise,2024-02-29T06:28:") && rows[1].contains("-08:00,-0.83"), "{stdout}");
    assert_eq!(rows.len(), 4);
    let north =
        ["sun", "--latitude", "69.65", "--longitude", "18.95", "--timezone", "Europe/Oslo", "--date", "2024-12-21"];
    let stdout = text(&upland(&north, "").stdout);
    assert_eq!(stdout.lines().count(), 2, "only noon: {stdout}");
}

fn example(name: &str) -> String {
    format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"))
}

#[test]
fn runs_of_an_example_as_csv() {
    let file = example("library-terraces");
    let out = upland(&["runs", "--from", "2026-06-08", "--to", "2026-06-09", &file], "");
    assert_eq!(out.status.code(), Some(0), "{}", text(&out.stderr));
    insta::assert_snapshot!("library_runs", text(&out.stdout));
    // Standard input gives the same.
    let piped =
        upland(&["runs", "--from", "2026-06-08", "--to", "2026-06-09", "-"], &std::fs::read_to_string(&file).unwrap());
    assert_eq!(piped.stdout, out.stdout);
    let calendar = upland(&["runs", "--from", "2026-06-08", "--to", "2026-06-09", "--format", "ics", &file], "");
    let events = text(&calendar.stdout).matches("BEGIN:VEVENT").count();
    assert_eq!(events, text(&out.stdout).lines().count() - 1);
}

#[test]
fn runs_refuse_days_out_of_their_order() {
    let out = upland(&["runs", "--from", "2026-06-09", "--to", "2026-06-08", &example("glasshouse")], "");
    assert_eq!(out.status.code(), Some(2));
    assert_eq!(upland(&["runs", "--from", "2026-02-31", "--to", "2026-06-08", "-"], "").status.code(), Some(2));
}

#[test]
fn check_writes_its_findings_and_its_status() {
    let out = upland(&["check", "--date", "2026-06-11", &example("library-terraces")], "");
    assert_eq!(out.status.code(), Some(1), "{}", text(&out.stderr));
    insta::assert_snapshot!("library_check", text(&out.stdout));
    let sound = upland(&["check", "--date", "2026-06-11", &example("hill-cemetery")], "");
    assert_eq!((sound.status.code(), text(&sound.stdout).as_str()), (Some(0), "[]\n"));
}

/// A percent that the panel cannot be set to makes no controller; it is said as a finding.
#[test]
fn check_finds_a_percent_outside_the_range() {
    let file = std::fs::read_to_string(example("library-terraces")).unwrap();
    let spoiled = file.replacen("\"dial\": \"70\"", "\"dial\": \"73\"", 1);
    let out = upland(&["check", "--date", "2026-06-11", "-"], &spoiled);
    let found = text(&out.stdout);
    assert_eq!(out.status.code(), Some(1));
    assert!(found.contains("percent_out_of_range") && found.contains("Dial 70 %"), "{found}");
}

#[test]
fn a_file_that_is_no_site_is_bad_data_with_its_place() {
    let file = std::fs::read_to_string(example("glasshouse")).unwrap();
    for (spoiled, says) in [
        (file.replacen("\"version\": 4", "\"version\": 5", 1), "version 5"),
        (file[..200].to_owned(), "line "),
        (file.replacen("\"latitude\"", "\"breadth\"", 1), "breadth"),
    ] {
        for command in [&["check", "-"][..], &["runs", "--from", "2026-06-01", "--to", "2026-06-02", "-"][..]] {
            let out = upland(command, &spoiled);
            assert_eq!((out.status.code(), out.stdout.len()), (Some(1), 0));
            assert!(text(&out.stderr).contains(says), "{}", text(&out.stderr));
        }
    }
    assert_eq!(upland(&["check", "nowhere.json"], "").status.code(), Some(1));
}

#[test]
fn the_schema_is_json_and_names_its_version() {
    let out = upland(&["schema"], "");
    let schema: serde_json::Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(schema["properties"]["version"]["const"], 4);
    assert_eq!(schema["additionalProperties"], false);
}

/// Passwords must not travel in the clear.
#[test]
fn serving_beyond_loopback_takes_https() {
    let out = upland(
        &[
            "serve",
            "--database-url",
            "postgres://nobody@127.0.0.1:1/none",
            "--key-file",
            "none",
            "--listen",
            "0.0.0.0:0",
        ],
        "",
    );
    assert_eq!(out.status.code(), Some(2));
    assert!(text(&out.stderr).contains("beyond loopback"), "{}", text(&out.stderr));
}

/// A season without rain: the balance is that of FAO-56, and every number reads back the same.
#[test]
fn replay_writes_a_balance_that_anyone_can_add_up() {
    let site = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/hill-cemetery.json");
    let out = upland(&[&["replay", site], &SEATTLE_COLUMNS[..], &[SEATTLE]].concat(), "");
    assert_eq!(out.status.code(), Some(0), "{}", text(&out.stderr));
    let doc: serde_json::Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!((doc["format"].as_str(), doc["version"].as_u64()), (Some("upland-replay"), Some(1)));
    let days = doc["dates"].as_array().unwrap().len();
    assert_eq!(days, 1461);
    let ids: Vec<&str> = doc["strategies"].as_array().unwrap().iter().map(|s| s["id"].as_str().unwrap()).collect();
    assert!(ids.contains(&"nothing") && ids.contains(&"as_found"), "{ids:?}");
    for strategy in doc["strategies"].as_array().unwrap() {
        assert!(strategy["obeys_rules"] == false || strategy["rule_breaks"] == 0, "{}", strategy["id"]);
        for station in strategy["stations"].as_array().unwrap() {
            let of = |name: &str| station[name].as_f64().unwrap();
            let daily = |name: &str, i: usize| station["daily"][name][i].as_f64().unwrap();
            let (taw, raw) = (of("taw_mm"), of("taw_mm") * of("p"));
            let mut depletion = of("depletion_start_mm");
            for i in 0..days {
                let after = depletion - (daily("rain_mm", i) + daily("applied_mm", i) - daily("runoff_mm", i));
                let ks = if after <= raw { 1.0 } else { ((taw - after) / (taw - raw)).max(0.0) };
                let et = (ks * daily("et_l_mm", i)).min((taw - after).max(0.0));
                assert!((daily("ks", i) - ks).abs() < 1e-9 && (daily("et_actual_mm", i) - et).abs() < 1e-9);
                assert!((daily("percolation_mm", i) - (-(after + et)).max(0.0)).abs() < 1e-9);
                depletion = (after + et).max(0.0);
                assert!((daily("depletion_mm", i) - depletion).abs() < 1e-9, "{} day {i}", strategy["id"]);
            }
        }
    }
    // The schema knows it.
    let schema = upland(&["schema", "replay"], "");
    let schema: serde_json::Value = serde_json::from_slice(&schema.stdout).unwrap();
    assert!(jsonschema::is_valid(&schema, &doc));
    assert!(!jsonschema::is_valid(&schema, &serde_json::json!({"format": "upland-replay"})));
}

#[test]
fn replay_says_what_is_missing() {
    let site = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/glasshouse.json");
    let gap = "date,tmax_c,tmin_c,rain_mm\n2015-06-01,24,12,0\n2015-06-04,25,11,\n";
    let out = upland(&["replay", site, "-"], gap);
    assert_eq!(out.status.code(), Some(0), "{}", text(&out.stderr));
    assert!(text(&out.stderr).contains("2 days have no reference ET"), "{}", text(&out.stderr));
    let doc: serde_json::Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(doc["et0_filled"], serde_json::json!(["2015-06-02", "2015-06-03"]));
    assert_eq!(doc["rain_missing"].as_array().unwrap().len(), 3);
    let none = upland(&["replay", site, "-"], "date,tmax_c,tmin_c\n2015-06-01,,12\n");
    assert_eq!(none.status.code(), Some(1));
    let broken = upland(&["replay", "nowhere.json", "-"], gap);
    assert_ne!(broken.status.code(), Some(0));
}

/// Of warnings that are alike twenty are said, and how many more there are.
#[test]
fn warnings_that_are_alike_are_summed_up() {
    let mut file = String::from("date,tmax_c,tmin_c,solar_mj_m2\n");
    for day in 1..=30 {
        file.push_str(&format!("2020-12-{day:02},5,1,45\n"));
    }
    let out = et0(&[], &file);
    let sun = |said: &str| said.lines().filter(|l| l.contains(": sun 45.00")).count();
    let said = text(&out.stderr);
    // Twenty, and one that says that there are more.
    assert_eq!(sun(&said), 21, "{said}");
    assert!(said.contains("and 9 more like it; --all lists them"), "{said}");
    assert_eq!(sun(&text(&et0(&["--all"], &file).stderr)), 30);
}
