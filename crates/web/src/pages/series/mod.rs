//! A series of weather: its chart, its last days, its normals, what is doubtful in it.

mod flag_rows;
mod hours;
mod months;
mod period;
mod recent;
mod station;

use chrono::NaiveDate;
use upland_core::climate::normals::NormalDay;
use upland_core::climate::record::months_on_record;
use upland_core::quantity::MonthOfYear;

use crate::charts::{RecordBrush, WeatherPlate, WeatherPlateInput};
use crate::context::{Record, RecordDay, Weather};
use crate::form::Form;
use crate::pages::shell::Shell;
use crate::show::{Measure, Units, date_long, number};
use crate::words::Words;
use flag_rows::{decision_rows, flag_rows};

pub(crate) use flag_rows::{DecisionRow, FlagRow, element_key, element_name, measure, value_text};
pub(crate) use hours::{HoursTemplate, HoursView, days_for, newest_with_hours};
pub(crate) use months::MonthsView;
pub(crate) use period::{Period, PeriodLink, Steps};
pub(crate) use recent::{RecentView, Scheduled};
pub(crate) use station::{Station, fill_station};

#[derive(askama::Template)]
#[template(path = "series.html")]
pub(crate) struct SeriesTemplate {
    pub(crate) shell: Shell,
    pub(crate) form: Form,
    pub(crate) base: String,
    pub(crate) version: i32,
    pub(crate) name: String,
    pub(crate) span: String,
    pub(crate) used_by: String,
    pub(crate) where_is: String,
    pub(crate) method: String,
    pub(crate) method_name: String,
    pub(crate) source: String,
    pub(crate) edit_href: Option<String>,
    pub(crate) import_href: Option<String>,
    pub(crate) variants: Vec<(String, String)>,
    pub(crate) depth_unit: &'static str,
    pub(crate) height_unit: &'static str,
    /// Whether the form of the station was sent and not saved.
    pub(crate) station_open: bool,
    pub(crate) view: RecordView,
}

/// What a record shows of itself.
#[derive(Debug, Clone, Default)]
pub(crate) struct RecordView {
    pub(crate) plate: Option<WeatherPlate>,
    pub(crate) brush: Option<RecordBrush>,
    pub(crate) shown: String,
    pub(crate) from: String,
    pub(crate) to: String,
    pub(crate) periods: Vec<PeriodLink>,
    pub(crate) steps: Steps,
    pub(crate) months: MonthsView,
    pub(crate) recent: Option<RecentView>,
    /// The newest day with hours.
    pub(crate) hours_of: Option<String>,
    pub(crate) flags_title: String,
    pub(crate) flags: Vec<FlagRow>,
    pub(crate) decisions: Vec<DecisionRow>,
}

/// The days of a record in a period.
fn between(days: &[RecordDay], period: Period) -> &[RecordDay] {
    let from = days.partition_point(|d| d.weather.date < period.from);
    let to = days.partition_point(|d| d.weather.date <= period.to);
    &days[from..to]
}

impl RecordView {
    /// A record in the period that the form asks for; `today` is the month to stand out.
    pub(crate) fn of(
        record: &Record,
        form: &Form,
        base: &str,
        today: NaiveDate,
        scheduled: Option<&Scheduled>,
        units: Units,
    ) -> Self {
        let normals = record.weather.normals();
        let now = MonthOfYear::of(today);
        let (Some([from, to]), Some(site)) = (record.span(), record.site()) else {
            return Self { months: MonthsView::of(&record.weather, &[], now, units), ..Self::default() };
        };
        let span = Period { from, to };
        let shown = Period::asked(form, span);
        let open = record.open_flags();
        let (flag_rows, marks) = flag_rows(&open, form, units);
        let days: Vec<NormalDay> = record
            .days
            .iter()
            .map(|d| NormalDay { date: d.weather.date, et0_mm: d.et0_mm, rain_mm: d.weather.rain })
            .collect();
        let months = months_on_record(&days, span.to);
        let plate = WeatherPlate::draw(&WeatherPlateInput {
            days: between(&record.days, shown),
            period: [shown.from, shown.to],
            normals,
            site: &site,
            flags: &marks,
            units,
        });
        let recent = Period::last_days(span);
        Self {
            plate,
            brush: RecordBrush::draw(&months, [span.from, span.to], [shown.from, shown.to]),
            shown: Words.t2("record-shown", ("first", date_long(shown.from)), ("last", date_long(shown.to))),
            from: shown.from.to_string(),
            to: shown.to.to_string(),
            periods: period::usual(base, span, shown),
            steps: Steps::of(base, span, shown),
            months: MonthsView::of(&record.weather, &months, now, units),
            recent: Some(RecentView::of(between(&record.days, recent), recent, scheduled, &marks, units)),
            hours_of: newest_with_hours(record).map(|date| date.to_string()),
            flags_title: Words.count("record-flags", flag_rows.len()),
            flags: flag_rows,
            decisions: decision_rows(&record.decisions, units),
        }
    }
}

/// Where a station stands and how high its wind sensor.
pub(crate) fn where_is(weather: &Weather, units: Units) -> String {
    let series = &weather.series.value;
    let position = &series.position;
    Words.with(
        "record-where",
        &[
            ("lat", &number(position.latitude_deg(), 3)),
            ("lon", &number(position.longitude_deg(), 3)),
            ("height", &Measure::Height.show(position.elevation_m(), units)),
            ("wind", &Measure::Height.show(series.wind_height_m, units)),
        ],
    )
}
