//! What goes into the store and comes out of it.

mod action;
mod hours;
mod people;
mod snooze;
mod upload;

pub use action::ActionLine;
pub use hours::{DayHours, HoursOnRecord};
pub use people::{Person, Role, SessionOwner, SessionRecord, UserRecord, Visitor};
pub use snooze::Snooze;
pub use upload::{NewUpload, Upload, UploadsKept, WaitingUpload};

use chrono::{DateTime, NaiveDate, Utc};
use serde_json::Value;
pub use upland_core::climate::blend::WeatherDay;
use upland_core::climate::daily::DailyWeather;
use upland_core::climate::normals::Normals;
use upland_core::climate::review::Decision;
use upland_core::controller::Controller;
use upland_core::place::{Place, Position, Rules};
use upland_formats::site::FieldDoc;
use uuid::Uuid;

/// A kind of thing that is saved, versioned and undone as a whole.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// A place.
    Place,
    /// A controller with its programs and stations.
    Controller,
    /// A series of weather.
    Series,
}

impl Kind {
    pub(crate) const fn word(self) -> &'static str {
        match self {
            Self::Place => "place",
            Self::Controller => "controller",
            Self::Series => "series",
        }
    }

    pub(crate) fn of_word(word: &str) -> Option<Self> {
        [Self::Place, Self::Controller, Self::Series].into_iter().find(|k| k.word() == word)
    }
}

/// Something with its key and the version it is at.
#[derive(Debug, Clone, PartialEq)]
pub struct Versioned<T> {
    /// Key.
    pub id: Uuid,
    /// Version, from 1.
    pub version: i32,
    /// The thing.
    pub value: T,
}

/// A place.
#[derive(Debug, Clone, PartialEq)]
pub struct PlaceRecord {
    /// The place itself.
    pub place: Place,
    /// The weather that it looks at.
    pub series_id: Option<Uuid>,
    /// Weather beside that.
    pub further: FurtherWeather,
    /// Water rules.
    pub rules: Rules,
}

/// The stations that a place looks at beside its first one.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct FurtherWeather {
    /// The one whose rain counts before any other's.
    pub rain: Option<Uuid>,
    /// Those that fill gaps, in order of preference.
    pub gaps: Vec<Uuid>,
}

impl FurtherWeather {
    /// Most stations that fill gaps.
    pub const MOST_GAPS: usize = 3;

    /// Every one of them once.
    pub fn all(&self) -> impl Iterator<Item = Uuid> {
        let rain = self.rain.filter(|id| !self.gaps.contains(id));
        rain.into_iter().chain(self.gaps.iter().copied())
    }
}

/// The word of what kind of record it is.
pub(crate) const fn field_kind(document: &FieldDoc) -> &'static str {
    match document {
        FieldDoc::Found(_) => "found",
        FieldDoc::Round(_) => "round",
        FieldDoc::Dialled(_) => "dialled",
        FieldDoc::Measured(_) => "measured",
    }
}

/// The day of the visit that a record is of, and when it says to look again.
pub(crate) fn field_dates(document: &FieldDoc) -> (NaiveDate, Option<NaiveDate>) {
    match document {
        FieldDoc::Found(doc) => (doc.seen_at.date(), None),
        FieldDoc::Round(doc) => (doc.on, Some(doc.look_again)),
        FieldDoc::Dialled(doc) => (doc.on, Some(doc.look_again)),
        FieldDoc::Measured(doc) => (doc.on, None),
    }
}

/// Something written down in the field: added once and never changed.
#[derive(Debug, Clone, PartialEq)]
pub struct FieldRecord {
    /// Made by the client, so that sending twice is harmless.
    pub id: Uuid,
    /// The controller.
    pub controller_id: Uuid,
    /// When.
    pub at: DateTime<Utc>,
    /// Who, by name.
    pub user_name: String,
    /// What.
    pub document: FieldDoc,
}

/// A controller as lists know it, without its document; what stands here changes whenever anything that its
/// day depends on does.
#[derive(Debug, Clone, PartialEq)]
pub struct ControllerHead {
    /// Key.
    pub id: Uuid,
    /// Name.
    pub name: String,
    /// Version.
    pub version: i32,
    /// How many stations are in use.
    pub stations: i32,
    /// The place.
    pub place_id: Uuid,
    /// The place's name.
    pub place: String,
    /// The place's version.
    pub place_version: i32,
    /// Where the place lies: latitude and longitude, degrees.
    pub position_deg: [f64; 2],
    /// The place's IANA time zone.
    pub time_zone: String,
    /// The import of weather that counts there.
    pub revision_id: Option<Uuid>,
    /// The imports that count of the stations beside it.
    pub further_revisions: Vec<Uuid>,
    /// When anything was last written down in the field.
    pub recorded_at: Option<DateTime<Utc>>,
    /// The day of the last visit.
    pub last_visit: Option<NaiveDate>,
    /// When to look again.
    pub look_again: Option<NaiveDate>,
}

/// Which heads, in which order.
#[derive(Debug, Clone, Default)]
pub struct HeadFilter {
    /// Part of the controller's or the place's name, in any case; empty for all.
    pub text: String,
    /// Only those of these places, where stated.
    pub places: Option<Vec<Uuid>>,
    /// What is to be looked at first stands first; else by place and name.
    pub by_look_again: bool,
    /// How many to leave out.
    pub skip: i64,
    /// How many at most; all where nothing is stated.
    pub most: Option<i64>,
}

impl HeadFilter {
    /// Those of a place.
    #[must_use]
    pub fn of_place(id: Uuid) -> Self {
        Self { places: Some(vec![id]), ..Self::default() }
    }
}

/// Part of a list, and how many there are in all.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Part<T> {
    /// The part.
    pub items: Vec<T>,
    /// How many there are.
    pub total: usize,
}

/// A controller and the place where it hangs.
#[derive(Debug, Clone, PartialEq)]
pub struct ControllerRecord {
    /// The place.
    pub place_id: Uuid,
    /// The controller.
    pub controller: Controller,
}

/// A series of weather: a station's days, or twelve typed normals.
#[derive(Debug, Clone, PartialEq)]
pub struct SeriesRecord {
    /// Name.
    pub name: String,
    /// Where it was measured.
    pub position: Position,
    /// Height of the wind sensor, m.
    pub wind_height_m: f64,
    /// The import that counts.
    pub revision_id: Uuid,
}

/// Normals, and the guess that was changed to get them (empty: none).
#[derive(Debug, Clone, PartialEq)]
pub struct NormalsVariant {
    /// The guess, as in `wind=1`.
    pub variant: String,
    /// The twelve months.
    pub normals: Normals,
    /// Mean high and low of each month, °C, where the reference ET was worked out from those.
    pub temperatures: Option<[[f64; 2]; 12]>,
}

/// What an import brings: never changed afterwards.
#[derive(Debug, Clone, PartialEq)]
pub struct NewRevision {
    /// Its key.
    pub id: Uuid,
    /// Where it came from: the file's name, or that it was typed.
    pub source: String,
    /// Hash of what was read.
    pub input_hash: Vec<u8>,
    /// Version of the methods by which the figures were worked out.
    pub method_version: i32,
    /// The usual method of the days, by its name.
    pub method: String,
    /// Days as they count; none for typed normals.
    pub days: Vec<DailyWeather>,
    /// What was decided about single values of them.
    pub decisions: Vec<Decision>,
    /// The hours of those days, where they were measured and still count.
    pub hours: HoursOnRecord,
    /// Reference ET and its method for the days that have one.
    pub et0: Vec<(NaiveDate, f64, String)>,
    /// Normals and their variants.
    pub normals: Vec<NormalsVariant>,
}

/// An import in a few words.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RevisionSummary {
    /// Its key.
    pub id: Uuid,
    /// Where it came from.
    pub source: String,
    /// First day; none for typed normals.
    pub first_day: Option<NaiveDate>,
    /// Last day.
    pub last_day: Option<NaiveDate>,
    /// How many days.
    pub day_count: i32,
    /// The usual method of its days; empty where none gives a reference ET.
    pub method: String,
    /// Whether it gives the twelve months: a part of a year or a rain gauge does not.
    pub has_normals: bool,
}

impl RevisionSummary {
    /// Whether the normals were typed by hand. Days may have been read by hand besides.
    #[must_use]
    pub fn is_typed(&self) -> bool {
        self.method.starts_with(TYPED)
    }
}

/// The method of normals that were typed.
pub const TYPED: &str = "typed";

/// The method of normals whose reference ET was worked out from typed highs and lows.
pub const TYPED_TEMPERATURES: &str = "typed+hargreaves-samani";

/// How the method of normals begins that follow from a climate in words; the words come after it.
pub const TYPED_CLIMATE: &str = "typed+climate ";

/// A day of a series with all its elements.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RecordDay {
    /// The elements, as they count.
    pub weather: DailyWeather,
    /// Reference ET, mm; none where its temperatures are missing.
    pub et0_mm: Option<f64>,
    /// Whether its hours are on record.
    pub has_hours: bool,
}

/// A thing as it is to stand; `None` takes it away.
#[derive(Debug, Clone, PartialEq)]
pub enum Record {
    /// A place.
    Place(Option<PlaceRecord>),
    /// A controller.
    Controller(Option<ControllerRecord>),
    /// A series, and a new import where there is one.
    Series(Option<SeriesRecord>, Option<Box<NewRevision>>),
}

impl Record {
    /// What kind of thing it is.
    #[must_use]
    pub const fn kind(&self) -> Kind {
        match self {
            Self::Place(_) => Kind::Place,
            Self::Controller(_) => Kind::Controller,
            Self::Series(..) => Kind::Series,
        }
    }
}

/// One thing changed by an action.
#[derive(Debug, Clone, PartialEq)]
pub struct Write {
    /// Key of the thing.
    pub id: Uuid,
    /// The version that the change was made on; 0 for a new thing.
    pub made_on: i32,
    /// The thing as it is to be.
    pub record: Record,
}

impl Write {
    /// A thing that is new.
    #[must_use]
    pub const fn new(id: Uuid, record: Record) -> Self {
        Self { id, made_on: 0, record }
    }
}

/// What one person did at once: saved as a whole or not at all.
#[derive(Debug, Clone, PartialEq)]
pub struct Action {
    /// Made by the client, so that sending twice is harmless.
    pub id: Uuid,
    /// Who.
    pub user_id: Uuid,
    /// Who, by name.
    pub user_name: String,
    /// When.
    pub at: DateTime<Utc>,
    /// What was done, for the log: the key of a word.
    pub why: String,
    /// Hash of the form, which tells the same again from something else under the same id.
    pub digest: Vec<u8>,
    /// The address to go to afterwards, up to 400 characters; who sends the same again goes there too.
    pub leads_to: String,
    /// The action that this one takes back.
    pub undoes: Option<Uuid>,
    /// What is changed.
    pub writes: Vec<Write>,
    /// What is written down.
    pub records: Vec<FieldRecord>,
}

/// An entry of the log of changes.
#[derive(Debug, Clone, PartialEq)]
pub struct ChangeEntry {
    /// The action it belongs to.
    pub action_id: Uuid,
    /// Kind of the thing.
    pub kind: Kind,
    /// Key of the thing.
    pub aggregate_id: Uuid,
    /// The version that it brought the thing to.
    pub version: i32,
    /// When.
    pub at: DateTime<Utc>,
    /// Who, by name.
    pub user_name: String,
    /// What was done: the key of a word.
    pub why: String,
    /// What stood before.
    pub before: Option<Value>,
    /// What stood after.
    pub after: Option<Value>,
    /// The action that it took back.
    pub undoes: Option<Uuid>,
}
