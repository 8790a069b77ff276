//! A company as large as they come, from a seed: 200 places, 1,000 controllers of 24 stations, five years of
//! changes. It is invented from end to end, and there to be measured against.

use anyhow::Context;
use chrono::{NaiveDate, TimeDelta, Utc};
use chrono_tz::Tz;
use upland_core::controller::{Controller, Preset, ProgramLetter, Schedule, StartTime, Station};
use upland_core::landscape::{Plant, Soil, SprinklerType};
use upland_core::place::{Place, Position, Rules};
use upland_core::quantity::RunTime;
use upland_core::sensor::{Sensor, SensorKind};
use upland_formats::site::{Answer, DialledDoc, FieldDoc, GroundDoc, PanelNextDoc, RoundDoc};
use upland_store::{Action, ControllerRecord, FieldRecord, FurtherWeather, PlaceRecord, Record, Role, Store, Write};
use upland_web::hash_password;
use uuid::Uuid;

use super::{Demo, PASSWORD};

const COMPANY: &str = "Wethering Uplands Service";
const EMAIL: &str = "una@wethering.example";

/// How large, and from which seed.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Size {
    pub(crate) places: usize,
    /// Controllers at each place.
    pub(crate) controllers: usize,
    /// Changes of each controller, over five years.
    pub(crate) changes: u32,
    pub(crate) seed: u64,
}

const STATIONS: u8 = 24;
const YEARS: i64 = 5;

const FIRST: [&str; 20] = [
    "Sandrow", "Kestle", "Tolmery", "Orle", "Minna", "Pellor", "Marl", "Grevane", "Fenwick", "Harrow", "Lindle",
    "Ostra", "Quarrow", "Rusk", "Selby", "Thorle", "Umber", "Vessel", "Wicken", "Yarrow",
];
const SECOND: [&str; 10] =
    ["Park", "School", "Court", "Basin", "Orchard", "Square", "Hostel", "Green", "Cloister", "Gardens"];
const CABINETS: [&str; 10] = [
    "North lodge",
    "Pump house",
    "Yard wall",
    "Field hut",
    "Lock cottage",
    "Upper gate",
    "Stone kiosk",
    "Row four",
    "Porter's door",
    "East island",
];

/// Numbers that are the same for the same seed (SplitMix64: Steele, Lea and Flood 2014).
struct Numbers(u64);

impl Numbers {
    const fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        z ^ (z >> 31)
    }

    /// A number under `end`.
    fn under(&mut self, end: usize) -> usize {
        usize::try_from(self.next() % end as u64).unwrap_or(0)
    }

    fn of<T: Copy>(&mut self, choices: &[T]) -> T {
        choices[self.under(choices.len())]
    }
}

/// Makes the company, unless it is there.
///
/// # Errors
/// When the database refuses; what was made until then stays.
pub(crate) async fn load(store: &Store, size: Size, today: NaiveDate) -> anyhow::Result<()> {
    let account = store.account(store.account_named(COMPANY).await?);
    if account.places_part("", 0, 1).await?.total > 0 {
        return Ok(());
    }
    let user = match store.user_by_email(EMAIL).await {
        Ok(user) => user.id,
        Err(_) => account.add_user(EMAIL, "Una Corrie", &hash_password(PASSWORD)?, Role::Lead).await?,
    };
    let demo = Demo { account, user, today };
    let mut numbers = Numbers(size.seed);
    let weather = demo.weather().await.context("its weather")?;
    for place in 0..size.places {
        let place_id = place_of(&demo, &mut numbers, place, weather).await?;
        for nth in 0..size.controllers {
            let id = Uuid::new_v4();
            controller(&demo, &mut numbers, id, (place_id, nth), size.changes).await?;
            field(&demo, &mut numbers, id).await?;
        }
    }
    Ok(())
}

async fn place_of(demo: &Demo, numbers: &mut Numbers, nth: usize, weather: Uuid) -> anyhow::Result<Uuid> {
    let round = nth / (FIRST.len() * SECOND.len());
    let number = if round == 0 { String::new() } else { format!(" {}", round + 1) };
    let name = format!("{} {}{number}", FIRST[nth % FIRST.len()], SECOND[nth / FIRST.len() % SECOND.len()]);
    let spread = |n: &mut Numbers| n.under(4000) as f64 / 10_000.0 - 0.2;
    let position = Position::new(47.5 + spread(numbers), -122.2 + spread(numbers), 150.0 + numbers.under(200) as f64)?;
    let place = PlaceRecord {
        place: Place {
            name,
            house_number: (numbers.under(200) + 1).to_string(),
            position,
            zone: Tz::America__Los_Angeles,
        },
        // One in forty waits for its weather.
        series_id: (numbers.under(40) > 0).then_some(weather),
        further: FurtherWeather::default(),
        rules: Rules::default(),
    };
    demo.save("why-place-new", Record::Place(Some(place))).await
}

/// A controller, and what was changed of it since: a run time each time.
async fn controller(
    demo: &Demo,
    numbers: &mut Numbers,
    id: Uuid,
    (place_id, nth): (Uuid, usize),
    changes: u32,
) -> anyhow::Result<()> {
    let preset = numbers.of(&Preset::ALL);
    let capability = upland_core::controller::Capability { stations: STATIONS, ..preset.capability() };
    let mut c = Controller::new(CABINETS[nth % CABINETS.len()].to_owned(), capability);
    let programs = usize::from(c.capability.programs.clamp(1, 3));
    for number in 1..=STATIONS {
        let plant = numbers.of(&[Plant::CoolTurf, Plant::Shrubs, Plant::Trees, Plant::Perennials]);
        let kind = numbers.of(&[SprinklerType::Spray, SprinklerType::MultiStream, SprinklerType::Drip]);
        c.stations.push(Station {
            program: ProgramLetter::ALL[numbers.under(programs)],
            soil: numbers.of(&[Soil::Sand, Soil::Loam, Soil::Clay]),
            area_m2: Some((40 + numbers.under(400)) as f64),
            minutes: Some(RunTime::from_minutes((5 + numbers.under(20)) as f64)?),
            ..Station::plain(number, &format!("Bed {number}"), plant, kind)
        });
    }
    c.normalise_programs();
    for (n, program) in c.programs.iter_mut().enumerate() {
        let start = u16::try_from(60 + 150 * n).unwrap_or(60);
        program.schedule = Schedule { starts: StartTime::new(start).into_iter().collect(), ..program.schedule.clone() };
    }
    if numbers.under(3) > 0 {
        let sensor = Sensor::proposed(SensorKind::common_rain(), "Roof edge", &c);
        let on = demo.today - TimeDelta::days(numbers.under(700) as i64);
        c.add_sensor(Sensor { battery: "CR2032".into(), battery_on: Some(on), ..sensor });
    }
    c.check().context("a controller of the large company")?;
    let days = YEARS * 365;
    for change in 0..=changes {
        if change > 0 {
            let station = numbers.under(c.stations.len());
            c.stations[station].minutes = Some(RunTime::from_minutes((5 + numbers.under(25)) as f64)?);
        }
        let why = if change == 0 { "why-controller-new" } else { "why-stations" };
        let days_ago = days - days * i64::from(change) / i64::from(changes.max(1));
        let record = Record::Controller(Some(ControllerRecord { place_id, controller: c.clone() }));
        let made_on = i32::try_from(change)?;
        let action = Action { writes: vec![Write { id, made_on, record }], ..demo.action(why, days_ago) };
        demo.account.apply(&action).await?;
    }
    Ok(())
}

/// What was dialled and seen: at two of three controllers, within the last two months.
async fn field(demo: &Demo, numbers: &mut Numbers, id: Uuid) -> anyhow::Result<()> {
    if numbers.under(3) == 0 {
        return Ok(());
    }
    let days_ago = 5 + numbers.under(60) as i64;
    let on = demo.today - TimeDelta::days(days_ago);
    let dialled = FieldDoc::Dialled(DialledDoc {
        on,
        version: 1,
        values: Vec::new(),
        not_set: Vec::new(),
        panel_next: PanelNextDoc::NotSeen,
        our_next: None,
        look_again: on + TimeDelta::days(14),
    });
    let round = FieldDoc::Round(RoundDoc {
        on,
        percents: Vec::new(),
        stations: vec![(1, GroundDoc::Right)],
        change: None,
        answer: Answer::Nothing,
        reason: String::new(),
        look_again: on + TimeDelta::days(28),
        note: String::new(),
    });
    let mut action = demo.action("why-dialled", days_ago);
    for (document, minutes) in [(dialled, 0), (round, 30)] {
        let at = Utc::now() - TimeDelta::days(days_ago) + TimeDelta::minutes(minutes);
        let user_name = action.user_name.clone();
        action.records.push(FieldRecord { id: Uuid::new_v4(), controller_id: id, at, user_name, document });
    }
    demo.account.apply(&action).await?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_same_seed_gives_the_same_numbers() {
        let draw = |seed| (0..5).map(|_| Numbers(seed).next()).collect::<Vec<_>>();
        assert_eq!(draw(1), draw(1));
        assert_ne!(draw(1), draw(2));
        let mut numbers = Numbers(7);
        assert!((0..1000).all(|_| numbers.under(3) < 3));
    }
}
