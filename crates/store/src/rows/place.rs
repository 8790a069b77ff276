use chrono::NaiveDate;
use diesel::prelude::*;
use upland_core::controller::{Days, StartTime};
use upland_core::place::{Ban, DayRule, Hours, Position, Rules};
use uuid::Uuid;

use crate::error::StoreError;
use crate::model::PlaceRecord;
use crate::schema::places;

#[derive(Debug, Clone, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = places, treat_none_as_null = true)]
pub(crate) struct PlaceRow {
    pub(crate) account_id: Uuid,
    pub(crate) id: Uuid,
    name: String,
    house_number: String,
    latitude_deg: f64,
    longitude_deg: f64,
    elevation_m: f64,
    time_zone: String,
    series_id: Option<Uuid>,
    day_rule: String,
    day_rule_days: Vec<i16>,
    never_days: i16,
    closed_hours_min: Vec<i16>,
    ban_from: Option<NaiveDate>,
    ban_to: Option<NaiveDate>,
    rules_authority: String,
    rules_dated: Option<NaiveDate>,
}

/// A set of weekdays as its bits.
pub(super) fn bits(days: Days) -> i16 {
    i16::from(days.bits())
}

/// The set of bits; a CHECK holds them within a week.
pub(super) fn days(bits: i16) -> Days {
    Days::from_bits(u8::try_from(bits).unwrap_or(0))
}

/// A time of day of a column.
pub(super) fn time(minute: i16) -> Result<StartTime, StoreError> {
    let minute = u16::try_from(minute).map_err(|_| StoreError::BrokenRow(format!("minute {minute}")))?;
    StartTime::new(minute).map_err(|e| StoreError::BrokenRow(e.to_string()))
}

/// A time of day as a column holds it.
pub(super) fn minute(time: StartTime) -> i16 {
    // 0 to 1439.
    i16::try_from(time.minute_of_day()).unwrap_or(0)
}

impl PlaceRow {
    pub(crate) fn new(account_id: Uuid, id: Uuid, place: &PlaceRecord) -> Self {
        Self {
            account_id,
            id,
            name: place.name.clone(),
            house_number: place.house_number.clone(),
            latitude_deg: place.position.latitude_deg(),
            longitude_deg: place.position.longitude_deg(),
            elevation_m: place.position.elevation_m(),
            time_zone: place.time_zone.clone(),
            series_id: place.series_id,
            day_rule: match place.rules.days {
                DayRule::Any => "any",
                DayRule::Weekdays(_) => "weekdays",
                DayRule::ByParity { .. } => "parity",
                DayRule::ByLastDigit(_) => "last_digit",
            }
            .to_owned(),
            day_rule_days: match place.rules.days {
                DayRule::Any => Vec::new(),
                DayRule::Weekdays(days) => vec![bits(days)],
                DayRule::ByParity { odd, even } => vec![bits(odd), bits(even)],
                DayRule::ByLastDigit(digits) => digits.map(bits).to_vec(),
            },
            never_days: bits(place.rules.never),
            closed_hours_min: place.rules.hours.iter().flat_map(|h| [minute(h.from), minute(h.to)]).collect(),
            ban_from: place.rules.ban.map(|b| b.from),
            ban_to: place.rules.ban.map(|b| b.to),
            rules_authority: place.rules.authority.clone(),
            rules_dated: place.rules.dated,
        }
    }

    fn rules(&self) -> Result<Rules, StoreError> {
        let sets: Vec<Days> = self.day_rule_days.iter().map(|b| days(*b)).collect();
        let set = |i: usize| sets.get(i).copied().unwrap_or(Days::NONE);
        Ok(Rules {
            days: match self.day_rule.as_str() {
                "weekdays" => DayRule::Weekdays(set(0)),
                "parity" => DayRule::ByParity { odd: set(0), even: set(1) },
                "last_digit" => DayRule::ByLastDigit(std::array::from_fn(set)),
                _ => DayRule::Any,
            },
            never: days(self.never_days),
            hours: self
                .closed_hours_min
                .chunks_exact(2)
                .map(|pair| Ok(Hours { from: time(pair[0])?, to: time(pair[1])? }))
                .collect::<Result<_, StoreError>>()?,
            ban: self.ban_from.zip(self.ban_to).map(|(from, to)| Ban { from, to }),
            authority: self.rules_authority.clone(),
            dated: self.rules_dated,
        })
    }
}

impl TryFrom<PlaceRow> for PlaceRecord {
    type Error = StoreError;

    fn try_from(row: PlaceRow) -> Result<Self, StoreError> {
        let rules = row.rules()?;
        Ok(Self {
            name: row.name,
            house_number: row.house_number,
            position: Position::new(row.latitude_deg, row.longitude_deg, row.elevation_m)
                .map_err(|e| StoreError::BrokenRow(e.to_string()))?,
            time_zone: row.time_zone,
            series_id: row.series_id,
            rules,
        })
    }
}
