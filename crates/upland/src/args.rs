//! The words of the command line.

use std::path::PathBuf;

use chrono::NaiveDate;
use clap::{Args as ClapArgs, Parser, Subcommand, ValueEnum};
use upland_formats::weather::{Column, HourColumn};

/// The tool for people who look after irrigation.
#[derive(Debug, Parser)]
#[command(name = "upland", version)]
pub(crate) struct Args {
    #[command(subcommand)]
    pub(crate) command: Command,
}

#[derive(Debug, Subcommand)]
pub(crate) enum Command {
    /// Reference ET of each day of a weather file, as CSV.
    Et0(Weather),
    /// The twelve percents of a weather file, as CSV.
    Budget(Budget),
    /// Sunrise, solar noon and sunset of a day, as CSV.
    Sun(Sun),
    /// The runs of a site file from a date to a date, as CSV or iCalendar.
    Runs(SiteRuns),
    /// What is wrong with the controllers of a site file, as JSON.
    Check(SiteCheck),
    /// A season run again under several strategies: the daily balance of each station, as JSON.
    Replay(SiteReplay),
    /// The JSON Schema of the site file, or of a replay.
    Schema(SchemaOf),
    /// Serve the application.
    Serve(Serve),
    /// Bring a database to the newest version and stop.
    Migrate(Database),
    /// Add a user, or give a user a new password (read from standard input).
    User(User),
    /// Look whether a database and its settings are in order, and say what to do where they are not.
    Doctor(Doctor),
    /// Put the demo data into an empty database.
    Demo(Demo),
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Weather {
    /// Latitude in degrees, north positive.
    #[arg(long, allow_negative_numbers = true)]
    pub(crate) latitude: f64,
    /// Longitude in degrees, east positive.
    #[arg(long, allow_negative_numbers = true)]
    pub(crate) longitude: f64,
    /// Elevation above sea level, m.
    #[arg(long, allow_negative_numbers = true)]
    pub(crate) elevation: f64,
    /// Height of the wind sensor above ground, m.
    #[arg(long, default_value_t = 2.0, allow_negative_numbers = true)]
    pub(crate) wind_height: f64,
    /// Whether the file has a row a day or a row an hour.
    #[arg(long, value_enum, default_value_t = Timestep::Daily)]
    pub(crate) timestep: Timestep,
    /// Reference surface: short like grass, tall like alfalfa.
    #[arg(long, value_enum, default_value_t = Surface::Short)]
    pub(crate) reference: Surface,
    /// The header that a column has in the file, as in `--column tmax_c=temp_max`.
    #[arg(long, value_name = "NAME=HEADER", value_parser = any_column)]
    pub(crate) column: Vec<(AnyColumn, String)>,
    /// List every warning, however many are alike.
    #[arg(long)]
    pub(crate) all: bool,
    /// The weather file; `-` reads standard input.
    #[arg(value_name = "WEATHER.csv")]
    pub(crate) file: PathBuf,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Timestep {
    Daily,
    Hourly,
}

/// A column by its name, which may be one of daily files, of hourly files, or of both.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct AnyColumn {
    /// What it is in a file with a row a day.
    pub(crate) daily: Option<Column>,
    /// What it is in a file with a row an hour.
    pub(crate) hourly: Option<HourColumn>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Surface {
    Short,
    Tall,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Budget {
    #[command(flatten)]
    pub(crate) weather: Weather,
    /// Step of the percent, counted from 0.
    #[arg(long, default_value_t = 10, value_parser = clap::value_parser!(u16).range(1..=400))]
    pub(crate) step: u16,
    /// Lowest percent that can be dialled.
    #[arg(long, default_value_t = 10, value_parser = clap::value_parser!(u16).range(0..=400))]
    pub(crate) min: u16,
    /// Highest percent that can be dialled.
    #[arg(long, default_value_t = 200, value_parser = clap::value_parser!(u16).range(1..=400))]
    pub(crate) max: u16,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Sun {
    /// Latitude in degrees, north positive.
    #[arg(long, allow_negative_numbers = true)]
    pub(crate) latitude: f64,
    /// Longitude in degrees, east positive.
    #[arg(long, allow_negative_numbers = true)]
    pub(crate) longitude: f64,
    /// IANA time zone, such as `Europe/Zurich`.
    #[arg(long)]
    pub(crate) timezone: chrono_tz::Tz,
    /// The local day.
    #[arg(long)]
    pub(crate) date: NaiveDate,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct SiteRuns {
    /// First local day.
    #[arg(long)]
    pub(crate) from: NaiveDate,
    /// Last local day.
    #[arg(long)]
    pub(crate) to: NaiveDate,
    /// How the runs are written.
    #[arg(long, value_enum, default_value_t = RunsFormat::Csv)]
    pub(crate) format: RunsFormat,
    /// The site file; `-` reads standard input.
    #[arg(value_name = "SITE.json")]
    pub(crate) file: PathBuf,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum RunsFormat {
    Csv,
    Ics,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct SiteCheck {
    /// The week that is checked is that of this day; today unless stated.
    #[arg(long)]
    pub(crate) date: Option<NaiveDate>,
    /// The site file; `-` reads standard input.
    #[arg(value_name = "SITE.json")]
    pub(crate) file: PathBuf,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct SiteReplay {
    /// Height of the wind sensor above ground, m.
    #[arg(long, default_value_t = 2.0, allow_negative_numbers = true)]
    pub(crate) wind_height: f64,
    /// The header that a column has in the weather file, as in `--column tmax_c=temp_max`.
    #[arg(long, value_name = "NAME=HEADER", value_parser = column)]
    pub(crate) column: Vec<(Column, String)>,
    /// List every warning, however many are alike.
    #[arg(long)]
    pub(crate) all: bool,
    /// The site file.
    #[arg(value_name = "SITE.json")]
    pub(crate) site: PathBuf,
    /// The weather file, for the place of the site; one of the two files may be `-`.
    #[arg(value_name = "WEATHER.csv")]
    pub(crate) file: PathBuf,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct SchemaOf {
    /// Of which file.
    #[arg(value_enum, default_value_t = SchemaKind::Site)]
    pub(crate) of: SchemaKind,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum SchemaKind {
    Site,
    Replay,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Database {
    /// Address of the PostgreSQL database.
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    pub(crate) database_url: String,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Doctor {
    #[command(flatten)]
    pub(crate) database: Database,
    /// The key file that `serve` is given.
    #[arg(long, env = "UPLAND_KEY_FILE")]
    pub(crate) key_file: Option<PathBuf>,
    /// How many worker threads `serve` is given; one a core unless stated.
    #[arg(long, env = "UPLAND_WORKERS")]
    pub(crate) workers: Option<usize>,
    /// How many connections each of them keeps.
    #[arg(long, env = "UPLAND_CONNECTIONS", default_value_t = 4, value_parser = connections)]
    pub(crate) connections: usize,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Demo {
    #[command(flatten)]
    pub(crate) database: Database,
    /// Throw the demo company's data away first.
    #[arg(long, conflicts_with = "large")]
    pub(crate) fresh: bool,
    /// A company of its own, as large as they come, to measure against: 1,000 controllers, five years of
    /// changes. Takes minutes.
    #[arg(long)]
    pub(crate) large: bool,
    /// Where the large company's figures come from: the same seed, the same company.
    #[arg(long, default_value_t = 1, requires = "large")]
    pub(crate) seed: u64,
    /// Places of the large company.
    #[arg(long, default_value_t = 200, requires = "large", value_parser = clap::value_parser!(u16).range(1..=2000))]
    pub(crate) places: u16,
    /// Changes of each of its controllers.
    #[arg(long, default_value_t = 20, requires = "large", value_parser = clap::value_parser!(u32).range(0..=200))]
    pub(crate) changes: u32,
    /// What was found and dialled of late goes by this day; today unless stated.
    #[arg(long, env = "UPLAND_TODAY")]
    pub(crate) today: Option<NaiveDate>,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct Serve {
    #[command(flatten)]
    pub(crate) database: Database,
    /// Address to listen on; loopback unless stated. Port 0 takes a free one.
    #[arg(long, default_value = "127.0.0.1:8087", env = "UPLAND_LISTEN")]
    pub(crate) listen: std::net::SocketAddr,
    /// The key of the session cookies, 64 bytes or more; kept in a file of its own.
    #[arg(long, env = "UPLAND_KEY_FILE")]
    pub(crate) key_file: PathBuf,
    /// Show every page as of this day, for demonstrations and tests.
    #[arg(long, env = "UPLAND_TODAY")]
    pub(crate) today: Option<NaiveDate>,
    /// Behind a proxy that ends TLS: cookies only over HTTPS, and the network address of who asks is the
    /// one that the proxy tells. Needed to listen beyond loopback.
    #[arg(long)]
    pub(crate) https: bool,
    /// How many worker threads; one a core unless stated.
    #[arg(long, env = "UPLAND_WORKERS")]
    pub(crate) workers: Option<usize>,
    /// How many connections to the database each worker keeps.
    #[arg(long, env = "UPLAND_CONNECTIONS", default_value_t = 4, value_parser = connections)]
    pub(crate) connections: usize,
}

#[derive(Debug, ClapArgs)]
pub(crate) struct User {
    #[command(flatten)]
    pub(crate) database: Database,
    /// Name of the company; made when it is not there.
    #[arg(long)]
    pub(crate) company: String,
    /// The person's name.
    #[arg(long)]
    pub(crate) name: String,
    /// What the person signs in with.
    #[arg(long)]
    pub(crate) email: String,
    /// What the person may do: a lead everything, a technician all but the people, a reader only read. The first
    /// person of a company is a lead, others are technicians unless stated; who is there already keeps the role.
    #[arg(long, value_enum)]
    pub(crate) role: Option<RoleName>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum RoleName {
    Lead,
    Technician,
    Reader,
}

fn connections(text: &str) -> Result<usize, String> {
    text.parse().ok().filter(|n| (1..=64).contains(n)).ok_or_else(|| "1 to 64".to_owned())
}

fn column(text: &str) -> Result<(Column, String), String> {
    let (name, header) = name_and_header(text)?;
    let names = || Column::ALL.map(Column::name).join(", ");
    let column =
        Column::from_name(name).ok_or_else(|| format!("no column is called {name:?}; there are {}", names()))?;
    Ok((column, header))
}

fn any_column(text: &str) -> Result<(AnyColumn, String), String> {
    let (name, header) = name_and_header(text)?;
    let found = AnyColumn { daily: Column::from_name(name), hourly: HourColumn::from_name(name) };
    if found.daily.is_none() && found.hourly.is_none() {
        let (daily, hourly) =
            (Column::ALL.map(Column::name).join(", "), HourColumn::ALL.map(HourColumn::name).join(", "));
        return Err(format!("no column is called {name:?}; daily files have {daily}, hourly files {hourly}"));
    }
    Ok((found, header))
}

fn name_and_header(text: &str) -> Result<(&str, String), String> {
    let (name, header) = text.split_once('=').ok_or_else(|| "write NAME=HEADER".to_owned())?;
    if header.is_empty() {
        return Err("the header is empty".into());
    }
    Ok((name, header.to_owned()))
}
