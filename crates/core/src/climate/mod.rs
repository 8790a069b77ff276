//! Weather in, reference evapotranspiration out.
//!
//! [`daily::Site`] holds what depends on the place alone; [`daily::Site::et0`] gives a day's
//! reference ET by the best method that the day's data allow, and says which guesses it took;
//! [`hourly`] does the same for hours, and [`day_of_hours`] adds them up to days; [`by_hours`] takes the better of the two for a record.
//! [`in_words`] gives normals to a climate that was only described;
//! [`normals`] turns days into the twelve months, [`record`] says how complete and how varied they are;
//! [`quality`] says what is wrong with a day, [`flags`] what is doubtful in a record, [`review`] what was decided
//! about it, [`merge`] how a new export joins it.

pub mod atmosphere;
pub mod blend;
pub mod by_hours;
pub mod daily;
pub mod day_of_hours;
pub mod element;
#[cfg(test)]
mod example_hours;
pub mod flags;
pub mod giving_way;
pub mod hour_quality;
pub mod hour_sky;
pub mod hourly;
pub mod in_words;
pub mod merge;
pub mod method;
pub mod normals;
pub mod quality;
pub mod radiation;
pub mod record;
pub mod reference_et;
pub mod review;
pub mod sun;
