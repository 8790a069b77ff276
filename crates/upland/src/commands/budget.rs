use std::io::{Write, stdout};

use anyhow::bail;
use upland_core::budget::{PercentRule, monthly_percents};
use upland_core::climate::normals::{NormalDay, monthly_normals};
use upland_core::quantity::Percent;

use super::{Outcome, complain, weather_file};
use crate::args::Budget;

/// `month,et0_mm_per_day,percent_exact,percent_dialled`, twelve lines.
pub(super) fn run(args: &Budget) -> anyhow::Result<Outcome> {
    if args.min > args.max {
        complain(format_args!("--min {} is above --max {}", args.min, args.max));
        return Ok(Outcome::Usage);
    }
    let file = match weather_file::open(&args.weather)? {
        Ok(file) => file,
        Err(outcome) => return Ok(outcome),
    };
    let days = file.reading.rows.iter().map(|row| NormalDay {
        date: row.day.date,
        et0_mm: file.site.et0_mm(&row.day, file.reference),
        rain_mm: row.day.rain,
    });
    let normals = match monthly_normals(days) {
        Ok(normals) => normals,
        Err(error) => bail!("{error}; a budget takes a year or more"),
    };
    let rule =
        PercentRule { step: Percent::new(args.step)?, min: Percent::new(args.min)?, max: Percent::new(args.max)? };
    let mut out = stdout().lock();
    writeln!(out, "month,et0_mm_per_day,percent_exact,percent_dialled")?;
    for row in monthly_percents(&normals, rule) {
        let (month, dialled) = (row.month.number(), row.percent_dialled.get());
        writeln!(out, "{month},{},{},{dialled}", row.et0_mm_per_day, row.percent_exact)?;
    }
    Ok(Outcome::Done)
}
