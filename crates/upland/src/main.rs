//! `upland`: the command line and the server of Upland Almanac.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod args;
mod commands;
mod demo;

use std::io;
use std::process::ExitCode;

use clap::Parser;
use mimalloc::MiMalloc;

/// A page is made of thousands of short texts: the system's allocator took a seventh of its time.
#[global_allocator]
static ALLOCATOR: MiMalloc = MiMalloc;

fn main() -> ExitCode {
    let args = args::Args::parse();
    match commands::run(args.command) {
        Ok(outcome) => outcome.into(),
        // Whoever reads what is written has had enough, as `head` does after ten lines.
        Err(error) if is_closed_pipe(&error) => ExitCode::SUCCESS,
        Err(error) => {
            commands::complain(format_args!("{error:#}"));
            ExitCode::from(1)
        }
    }
}

fn is_closed_pipe(error: &anyhow::Error) -> bool {
    error.downcast_ref::<io::Error>().is_some_and(|e| e.kind() == io::ErrorKind::BrokenPipe)
}
