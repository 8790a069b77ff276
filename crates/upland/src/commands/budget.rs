use std::io::{Write, stdout};

use anyhow::bail;
use upland_core::budget::{PercentRule, monthly_percents};
use upland_core::climate::day_of_hours::{DayOfHours, days_of_hours};
use upland_core::climate::normals::{NormalDay, monthly_normals};
use upland_core::quantity::Percent;

use super::{Outcome, complain, hourly_file, weather_file};
use crate::args::{Budget, Timestep, Weather};

/// `month,et0_mm_per_day,percent_exact,percent_dialled`, twelve lines.
pub(super) fn run(args: &Budget) -> anyhow::Result<Outcome> {
    if args.min > args.max {
        complain(format_args!("--min {} is above --max {}", args.min, args.max));
        return Ok(Outcome::Usage);
    }
    let days = match days(&args.weather)? {
        Ok(days) => days,
        Err(outcome) => return Ok(outcome),
    };
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

/// The days of a file; of an hourly one the sums of its whole days.
fn days(args: &Weather) -> anyhow::Result<Result<Vec<NormalDay>, Outcome>> {
    if args.timestep == Timestep::Hourly {
        return Ok(hourly_file::open(args)?.map(|file| {
            let day = |d: DayOfHours| NormalDay { date: d.weather.date, et0_mm: d.et0_mm, rain_mm: d.weather.rain };
            days_of_hours(&file.hours, &file.et0).into_iter().map(day).collect()
        }));
    }
    weather_file::read(args, |day, et0| NormalDay { date: day.date, et0_mm: et0.map(|e| e.et0_mm), rain_mm: day.rain })
}
