//! One module a command; each writes its result to standard output and says what is wrong on
//! standard error.

mod budget;
mod check;
mod demo;
mod doctor;
mod et0;
mod hourly_file;
mod replay;
mod runs;
mod schema;
mod serve;
mod site_file;
mod sun;
mod user;
mod weather_file;

use std::fmt;
use std::io::Write;
use std::process::ExitCode;

use crate::args::Command;

/// How a command ended: the process's exit status.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Outcome {
    /// Done: 0.
    Done,
    /// Findings or bad data, said on standard error: 1.
    BadData,
    /// Wrong usage: 2.
    Usage,
}

impl From<Outcome> for ExitCode {
    fn from(outcome: Outcome) -> Self {
        Self::from(match outcome {
            Outcome::Done => 0,
            Outcome::BadData => 1,
            Outcome::Usage => 2,
        })
    }
}

/// Runs a command.
pub(crate) fn run(command: Command) -> anyhow::Result<Outcome> {
    match command {
        Command::Et0(args) => et0::run(&args),
        Command::Budget(args) => budget::run(&args),
        Command::Sun(args) => sun::run(&args),
        Command::Runs(args) => runs::run(&args),
        Command::Check(args) => check::run(&args),
        Command::Replay(args) => replay::run(&args),
        Command::Schema(args) => schema::run(&args),
        Command::Serve(args) => serve::run(args),
        Command::Migrate(args) => serve::migrate(&args),
        Command::User(args) => user::run(&args),
        Command::Doctor(args) => doctor::run(&args),
        Command::Demo(args) => demo::run(&args),
    }
}

/// A line on standard error. When even that is closed there is nobody left to tell.
pub(crate) fn complain(text: fmt::Arguments<'_>) {
    let _ = writeln!(std::io::stderr(), "upland: {text}");
}
