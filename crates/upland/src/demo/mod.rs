//! The demo company: a scenario of our own, with made-up names, on real weather.
//!
//! A small maintenance company in an upland town looks after a terraced library garden, an orchard
//! walk, a roofed bocce court, a hillside cemetery and a glasshouse.

mod builders;
pub(crate) mod large;
mod logger;
mod places;
mod weather;

use anyhow::Context;
use chrono::{NaiveDate, TimeDelta, Utc};
use chrono_tz::Tz;
use upland_core::climate::normals::MonthNormal;
use upland_core::controller::Controller;
use upland_core::place::{Place, Position, Rules};
use upland_formats::site::FieldDoc;
use upland_store::{
    Account, Action, ControllerRecord, FieldRecord, FurtherWeather, HoursOnRecord, PlaceRecord, Record, Role,
    SeriesRecord, Store, Write,
};
use upland_web::hash_password;
use upland_web::intake::{DailyRecord, TypedNormals, revision_of_days, revision_of_normals, revision_of_record};
use uuid::Uuid;

/// What the demo user signs in with.
const EMAIL: &str = "oda@averstane.example";
/// The demo user's password.
const PASSWORD: &str = "upland-demo";
const SECOND_EMAIL: &str = "tam@averstane.example";
/// Where the company's rounds begin: its shed at the edge of the town.
const YARD: [f64; 2] = [47.5034, -122.2291];
const COMPANY: &str = "Averstane Grounds";

/// Puts the demo data into a migrated database, once; `fresh` throws it away first. What was found and
/// dialled of late is dated by `today`.
///
/// # Errors
/// When the database refuses; nothing is then left in part but the empty company.
pub(crate) async fn load(store: &Store, fresh: bool, today: NaiveDate) -> anyhow::Result<()> {
    let account = store.account(store.account_named(COMPANY).await?);
    if fresh {
        account.forget_everything().await?;
    } else if account.places_part("", 0, 1).await?.total > 0 {
        return Ok(());
    }
    let user = match store.user_by_email(EMAIL).await {
        Ok(user) => user.id,
        Err(_) => account.add_user(EMAIL, "Oda Marrick", &hash_password(PASSWORD)?, Role::Lead).await?,
    };
    if store.user_by_email(SECOND_EMAIL).await.is_err() {
        account.add_user(SECOND_EMAIL, "Tam Quillan", &hash_password(PASSWORD)?, Role::Technician).await?;
    }
    account.set_yard(Some(YARD)).await?;
    let demo = Demo { account, user, today };
    let airfield = demo.weather().await.context("the demo's weather")?;
    let bench = demo.typed_normals().await.context("the demo's typed normals")?;
    let gauge = demo.gauge().await.context("the demo's rain gauge")?;
    demo.library(airfield, gauge).await?;
    let logger = demo.logger().await.context("the demo's logger")?;
    demo.cemetery([airfield, logger]).await?;
    demo.glasshouse(bench).await?;
    demo.orchard().await
}

struct Demo {
    account: Account,
    user: Uuid,
    today: NaiveDate,
}

impl Demo {
    /// Something that the demo user did so many days ago.
    fn action(&self, why: &str, days_ago: i64) -> Action {
        Action {
            id: Uuid::new_v4(),
            user_id: self.user,
            user_name: "Oda Marrick".into(),
            at: Utc::now() - TimeDelta::days(days_ago),
            why: why.into(),
            digest: Vec::new(),
            leads_to: "/".into(),
            undoes: None,
            writes: Vec::new(),
            records: Vec::new(),
        }
    }

    /// Saves something new and gives its key.
    async fn save(&self, why: &str, record: Record) -> anyhow::Result<Uuid> {
        let id = Uuid::new_v4();
        let action = Action { writes: vec![Write::new(id, record)], ..self.action(why, 0) };
        self.account.apply(&action).await?;
        Ok(id)
    }

    /// Something that was written down so many days ago.
    async fn record(&self, controller_id: Uuid, days_ago: i64, document: FieldDoc) -> anyhow::Result<()> {
        let mut action = self.action("why-found", days_ago);
        let (at, user_name) = (action.at, action.user_name.clone());
        action.records.push(FieldRecord { id: Uuid::new_v4(), controller_id, at, user_name, document });
        self.account.apply(&action).await?;
        Ok(())
    }

    async fn weather(&self) -> anyhow::Result<Uuid> {
        let position = Position::new(47.444, -122.314, 130.0)?;
        let revision = revision_of_days(&position, 10.0, weather::SOURCE, weather::played_again(self.today)?)?;
        let record =
            SeriesRecord { name: "Airfield record".into(), position, wind_height_m: 10.0, revision_id: revision.id };
        self.save("why-weather-file", Record::Series(Some(record), Some(Box::new(revision)))).await
    }

    /// A rain gauge on the library's roof since New Year: it stands higher than the airfield and gets more, and
    /// nobody read it in the last week of April.
    async fn gauge(&self) -> anyhow::Result<Option<Uuid>> {
        let position = Position::new(47.5183, -122.2477, 214.0)?;
        let read = weather::gauge(&weather::played_again(self.today)?, self.today);
        if read.is_empty() {
            return Ok(None);
        }
        let record = DailyRecord {
            position,
            wind_height_m: 2.0,
            source: "rain gauge, read by hand".into(),
            read,
            hours: HoursOnRecord::new(),
            decisions: Vec::new(),
            typed: None,
            beside: true,
        };
        let revision = revision_of_record(record)?;
        let record =
            SeriesRecord { name: "Library gauge".into(), position, wind_height_m: 2.0, revision_id: revision.id };
        self.save("why-weather-file", Record::Series(Some(record), Some(Box::new(revision)))).await.map(Some)
    }

    /// A logger on the hill, which sends every hour and fills the gaps of the airfield.
    async fn logger(&self) -> anyhow::Result<Uuid> {
        let site = logger::site()?;
        let hours = logger::hours(&weather::played_again(self.today)?, &site, self.today);
        let (position, wind_height_m) = (site.position(), logger::MAST_M);
        let record = DailyRecord {
            position,
            wind_height_m,
            source: "simulated logger".into(),
            read: logger::days(&hours),
            hours,
            decisions: Vec::new(),
            typed: None,
            beside: true,
        };
        let revision = revision_of_record(record)?;
        let record = SeriesRecord { name: "Hill logger".into(), position, wind_height_m, revision_id: revision.id };
        self.save("why-weather-file", Record::Series(Some(record), Some(Box::new(revision)))).await
    }

    /// Twelve normals for under glass, as a grower would type them.
    async fn typed_normals(&self) -> anyhow::Result<Uuid> {
        let months = [0.7, 1.1, 1.8, 2.6, 3.3, 3.9, 4.2, 3.6, 2.5, 1.5, 0.8, 0.6];
        let normals = months.map(|et0_mm_per_day| MonthNormal { et0_mm_per_day, rain_mm: None });
        let revision = revision_of_normals("typed by hand", TypedNormals::of(normals));
        let position = Position::new(47.56, -122.19, 240.0)?;
        let record =
            SeriesRecord { name: "Under glass".into(), position, wind_height_m: 2.0, revision_id: revision.id };
        self.save("why-normals", Record::Series(Some(record), Some(Box::new(revision)))).await
    }

    async fn place(
        &self,
        name: &str,
        number: &str,
        at: [f64; 3],
        (series_id, further): (Option<Uuid>, FurtherWeather),
        rules: Rules,
    ) -> anyhow::Result<Uuid> {
        let place = PlaceRecord {
            place: Place {
                name: name.into(),
                house_number: number.into(),
                position: Position::new(at[0], at[1], at[2])?,
                zone: Tz::America__Los_Angeles,
            },
            series_id,
            further,
            rules,
        };
        self.save("why-place-new", Record::Place(Some(place))).await
    }

    async fn controller(&self, place_id: Uuid, mut controller: Controller) -> anyhow::Result<Uuid> {
        let named = std::mem::take(&mut controller.programs);
        controller.normalise_programs();
        for program in named {
            if let Some(slot) = controller.programs.iter_mut().find(|p| p.letter == program.letter) {
                *slot = program;
            }
        }
        controller.check()?;
        let record = ControllerRecord { place_id, controller };
        self.save("why-controller-new", Record::Controller(Some(record))).await
    }
}
