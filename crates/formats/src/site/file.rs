//! The site file: a whole place with its rules, weather normals, controllers and panels as found.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use thiserror::Error;
use upland_core::climate::normals::{MonthNormal, Normals};
use upland_core::controller::{Controller, name_is_valid};
use upland_core::found::{Panel, PanelError};
use upland_core::place::{Place, Rules, RulesError};
use upland_core::quantity::{OutOfRange, limit, range};

use super::place::{SitePlaceDoc, SiteRules};
use super::{ControllerDoc, DocError, PanelDoc, RulesDoc, Tabled, VERSION, upgrade};

/// Largest site file, bytes: hundreds of controllers stay far under it.
pub const SITE_BYTES: usize = 4 * 1024 * 1024;

/// Most controllers of one place.
pub const CONTROLLERS_MAX: usize = 64;

/// A month of an average year.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct MonthNormalDoc {
    /// Reference ET, mm a day.
    #[schemars(range(min = range::ET0.min, max = range::ET0.max))]
    pub et0_mm_per_day: f64,
    /// Rain of the month, mm; none where it is not known.
    #[schemars(range(min = range::RAIN_MONTH.min, max = range::RAIN_MONTH.max))]
    pub rain_mm: Option<f64>,
}

/// The weather that a place looks at.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteWeatherDoc {
    /// Its name.
    #[schemars(length(min = 1, max = limit::NAME))]
    pub name: String,
    /// Twelve months, January first.
    #[schemars(length(min = 12, max = 12))]
    pub normals: Vec<MonthNormalDoc>,
}

/// A panel as found, and the controller it belongs to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteFoundDoc {
    /// Name of the controller.
    pub controller: String,
    /// What its panel held.
    pub panel: PanelDoc,
}

/// A site file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteDoc {
    /// Version of the file.
    pub version: u32,
    /// The place.
    pub place: SitePlaceDoc,
    /// Its weather.
    #[serde(default)]
    pub weather: Option<SiteWeatherDoc>,
    /// Its controllers.
    #[schemars(length(max = CONTROLLERS_MAX))]
    pub controllers: Vec<ControllerDoc>,
    /// Panels as they were found, the latest of each controller.
    #[serde(default)]
    pub as_found: Vec<SiteFoundDoc>,
}

/// A place with everything that belongs to it.
#[derive(Debug, Clone, PartialEq)]
pub struct Site {
    /// The place itself.
    pub place: Place,
    /// Water rules.
    pub rules: Rules,
    /// Name and normals of its weather.
    pub weather: Option<(String, Normals)>,
    /// Controllers.
    pub controllers: Vec<Controller>,
    /// Panels as found: place of the controller in the list, and panel.
    pub as_found: Vec<(usize, Panel)>,
}

/// Why a file is no site.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum SiteError {
    /// Larger than any place needs.
    #[error("the file is larger than {} MB", SITE_BYTES / 1024 / 1024)]
    TooLarge,
    /// No JSON, or not of this shape.
    #[error("{}{path}: {message}", place_in_file(*.at))]
    Shape {
        /// Line and column, from 1; none in a file of an older version, which was upgraded first.
        at: Option<(usize, usize)>,
        /// Where in the document, as in `controllers[0].stations[3].soil`.
        path: String,
        /// What is wrong.
        message: String,
    },
    /// A version that is not known here.
    #[error("version {0} is not known here; versions 1 to {VERSION} are")]
    Version(u64),
    /// A name that is missing or too long.
    #[error("{path}: a name has 1 to 60 characters")]
    Name {
        /// Where.
        path: String,
    },
    /// A value out of range.
    #[error("{path}: {error}")]
    OutOfRange {
        /// Where.
        path: String,
        /// What is wrong.
        error: OutOfRange,
    },
    /// Rules that are not valid.
    #[error("place.rules: {0}")]
    Rules(RulesError),
    /// Rules with a word that is not known.
    #[error("place.rules: {0}")]
    RulesDoc(DocError),
    /// Not twelve months.
    #[error("weather.normals: 12 months, not {0}")]
    Months(usize),
    /// More controllers than a place has.
    #[error("controllers: at most {CONTROLLERS_MAX}, not {0}")]
    TooManyControllers(usize),
    /// More stations than a controller has.
    #[error("controllers[{index}].stations: a controller has at most 48, not {count}")]
    TooManyStations {
        /// Place of the controller in the list.
        index: usize,
        /// Stations of the file.
        count: usize,
    },
    /// Two controllers of one name.
    #[error("controllers: {0:?} is there twice")]
    ControllerTwice(String),
    /// A controller that cannot be.
    #[error("controllers[{index}]: {error}")]
    Controller {
        /// Place in the list.
        index: usize,
        /// What is wrong.
        error: DocError,
    },
    /// A panel of a controller that is not there.
    #[error("as_found[{0}]: there is no such controller")]
    NoSuchController(usize),
    /// A panel that cannot be read.
    #[error("as_found[{index}]: {error}")]
    PanelDoc {
        /// Place in the list.
        index: usize,
        /// What is wrong.
        error: DocError,
    },
    /// A panel that cannot be.
    #[error("as_found[{index}]: {error}")]
    Panel {
        /// Place in the list.
        index: usize,
        /// What is wrong.
        error: PanelError,
    },
}

/// Reads a site file.
///
/// # Errors
/// [`SiteError`] for the first thing that is not valid; nothing is read in part.
pub fn read_site(bytes: &[u8]) -> Result<Site, SiteError> {
    if bytes.len() > SITE_BYTES {
        return Err(SiteError::TooLarge);
    }
    let shape = |path: String, error: &serde_json::Error| SiteError::Shape {
        at: (error.line() > 0).then(|| (error.line(), error.column())),
        path,
        message: plain_message(error),
    };
    // The version first: a file of another one has other fields.
    #[derive(Deserialize)]
    struct Head {
        version: u64,
    }
    let version = serde_json::from_slice::<Head>(bytes).map_or(u64::from(VERSION), |head| head.version);
    let doc: SiteDoc = if version == u64::from(VERSION) {
        let mut reader = serde_json::Deserializer::from_slice(bytes);
        let doc = serde_path_to_error::deserialize(&mut reader).map_err(|e| shape(e.path().to_string(), e.inner()))?;
        reader.end().map_err(|e| shape("after the end".into(), &e))?;
        doc
    } else {
        let old = serde_json::from_slice(bytes).map_err(|e| shape("the file".into(), &e))?;
        let current = upgrade::site(old).map_err(|_| SiteError::Version(version))?;
        serde_path_to_error::deserialize(current).map_err(|e| shape(e.path().to_string(), e.inner()))?
    };
    Site::try_from(&doc)
}

/// `line 3, column 7, ` where that is known.
fn place_in_file(at: Option<(usize, usize)>) -> String {
    at.map_or_else(String::new, |(line, column)| format!("line {line}, column {column}, "))
}

/// The message without its place, which is said already.
fn plain_message(error: &serde_json::Error) -> String {
    let text = error.to_string();
    text.split(" at line ").next().unwrap_or(&text).to_owned()
}

/// Writes a site file, with a line end after it.
#[must_use]
pub fn write_site(site: &Site) -> String {
    // A document of plain values always becomes JSON.
    let mut text = serde_json::to_string_pretty(&SiteDoc::from(site)).unwrap_or_default();
    text.push('\n');
    text
}

/// The JSON Schema of the site file.
#[must_use]
pub fn site_schema() -> serde_json::Value {
    let mut schema = schemars::schema_for!(SiteDoc).to_value();
    schema["title"] = format!("Upland Almanac site file, version {VERSION}").into();
    schema["properties"]["version"]["const"] = VERSION.into();
    schema
}

impl From<&Site> for SiteDoc {
    fn from(site: &Site) -> Self {
        Self {
            version: VERSION,
            place: Tabled(site.place.clone(), SiteRules { rules: RulesDoc::from(&site.rules) }),
            weather: site.weather.as_ref().map(|(name, normals)| SiteWeatherDoc {
                name: name.clone(),
                normals: normals
                    .iter()
                    .map(|n| MonthNormalDoc { et0_mm_per_day: n.et0_mm_per_day, rain_mm: n.rain_mm })
                    .collect(),
            }),
            controllers: site.controllers.iter().map(ControllerDoc::from).collect(),
            as_found: site
                .as_found
                .iter()
                .filter_map(|(index, panel)| {
                    let controller = site.controllers.get(*index)?.name.clone();
                    Some(SiteFoundDoc { controller, panel: PanelDoc::from(panel) })
                })
                .collect(),
        }
    }
}

impl TryFrom<&SiteDoc> for Site {
    type Error = SiteError;

    fn try_from(doc: &SiteDoc) -> Result<Self, SiteError> {
        if doc.version != VERSION {
            return Err(SiteError::Version(u64::from(doc.version)));
        }
        let Tabled(place, SiteRules { rules }) = &doc.place;
        let rules = Rules::try_from(rules).map_err(SiteError::RulesDoc)?;
        rules.check(&place.house_number).map_err(SiteError::Rules)?;
        let weather = doc.weather.as_ref().map(read_weather).transpose()?;
        let controllers = read_controllers(&doc.controllers)?;
        let as_found = doc
            .as_found
            .iter()
            .enumerate()
            .map(|(index, found)| {
                let at = controllers.iter().position(|c| c.name == found.controller);
                let at = at.ok_or(SiteError::NoSuchController(index))?;
                let panel = Panel::try_from(&found.panel).map_err(|error| SiteError::PanelDoc { index, error })?;
                panel.check(&controllers[at].capability).map_err(|error| SiteError::Panel { index, error })?;
                Ok((at, panel))
            })
            .collect::<Result<_, SiteError>>()?;
        Ok(Self { place: place.clone(), rules, weather, controllers, as_found })
    }
}

fn read_weather(doc: &SiteWeatherDoc) -> Result<(String, Normals), SiteError> {
    if !name_is_valid(&doc.name) {
        return Err(SiteError::Name { path: "weather.name".into() });
    }
    let months: Vec<MonthNormal> = doc
        .normals
        .iter()
        .enumerate()
        .map(|(i, n)| {
            let path = || format!("weather.normals[{i}]");
            range::ET0
                .check(n.et0_mm_per_day)
                .and_then(|_| n.rain_mm.map(|r| range::RAIN_MONTH.check(r)).transpose())
                .map_err(|error| SiteError::OutOfRange { path: path(), error })?;
            Ok(MonthNormal { et0_mm_per_day: n.et0_mm_per_day, rain_mm: n.rain_mm })
        })
        .collect::<Result<_, SiteError>>()?;
    let count = months.len();
    Ok((doc.name.clone(), months.try_into().map_err(|_| SiteError::Months(count))?))
}

fn read_controllers(docs: &[ControllerDoc]) -> Result<Vec<Controller>, SiteError> {
    if docs.len() > CONTROLLERS_MAX {
        return Err(SiteError::TooManyControllers(docs.len()));
    }
    for (index, doc) in docs.iter().enumerate() {
        if doc.stations.len() > 48 {
            return Err(SiteError::TooManyStations { index, count: doc.stations.len() });
        }
        if docs[..index].iter().any(|o| o.name == doc.name) {
            return Err(SiteError::ControllerTwice(doc.name.clone()));
        }
    }
    let read = |(index, doc)| Controller::try_from(doc).map_err(|error| SiteError::Controller { index, error });
    docs.iter().enumerate().map(read).collect()
}
