use std::io::{Write, stdout};

use super::{Outcome, weather_file};
use crate::args::Weather;

/// `date,et0_mm,method`, one line a row of the file, in full precision. A row without a figure is
/// left blank and makes the exit status 1.
pub(super) fn run(args: &Weather) -> anyhow::Result<Outcome> {
    let file = match weather_file::open(args)? {
        Ok(file) => file,
        Err(outcome) => return Ok(outcome),
    };
    let mut out = std::io::BufWriter::new(stdout().lock());
    let mut outcome = Outcome::Done;
    writeln!(out, "date,et0_mm,method")?;
    for row in &file.reading.rows {
        match file.site.et0(&row.day, file.reference) {
            Some(et0) => writeln!(out, "{},{},{}", row.day.date, et0.et0_mm, et0.method)?,
            None => {
                writeln!(out, "{},,missing", row.day.date)?;
                outcome = Outcome::BadData;
            }
        }
    }
    out.flush()?;
    Ok(outcome)
}
