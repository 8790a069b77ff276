use std::io::{Write, stdout};

use serde::Serialize;
use upland_core::controller::ControllerError;
use upland_core::found::panel_findings;
use upland_core::schedule::check;
use upland_formats::site::{DocError, SiteError};
use upland_web::{FindingWords, words_of_findings, words_of_panel};

use super::site_file::{Opened, bytes};
use super::{Outcome, complain};
use crate::args::SiteCheck;

/// A finding as it is written.
#[derive(Debug, Serialize)]
struct Finding {
    controller: String,
    code: &'static str,
    severity: &'static str,
    message: String,
    at_stake: String,
    /// Empty where nothing mends it by itself.
    repair: String,
}

impl Finding {
    fn of(controller: &str, words: FindingWords) -> Self {
        Self {
            controller: controller.to_owned(),
            code: words.code,
            severity: words.severity,
            message: words.message,
            at_stake: words.stake,
            repair: words.repair,
        }
    }
}

/// The findings of a site file as JSON; status 1 when there are any.
pub(super) fn run(args: &SiteCheck) -> anyhow::Result<Outcome> {
    let findings = match Opened::read(&bytes(&args.file)?) {
        Ok(opened) => findings(&opened, args),
        Err(error) => match cannot_dial(&error) {
            Some(finding) => vec![finding],
            None => {
                complain(format_args!("{}: {error}", args.file.display()));
                return Ok(Outcome::BadData);
            }
        },
    };
    let mut out = stdout().lock();
    serde_json::to_writer_pretty(&mut out, &findings)?;
    writeln!(out)?;
    Ok(if findings.is_empty() { Outcome::Done } else { Outcome::BadData })
}

fn findings(opened: &Opened, args: &SiteCheck) -> Vec<Finding> {
    let site = &opened.site;
    let today = args.date.unwrap_or_else(|| chrono::Utc::now().with_timezone(&site.place.zone).date_naive());
    let situation = opened.situation(today);
    let mut out = Vec::new();
    for controller in &site.controllers {
        // What was to end, and still stands in the file, was not put back.
        let as_it_stands = controller.clone().as_of(today);
        let found = check(&situation, &as_it_stands);
        let words = words_of_findings(&as_it_stands, &found, &site.rules.authority);
        out.extend(words.into_iter().map(|w| Finding::of(&controller.name, w)));
    }
    for (index, panel) in &site.as_found {
        let Some(controller) = site.controllers.get(*index) else { continue };
        let then = opened.situation(panel.seen_at.date());
        let found = panel_findings(panel, controller, &then, then.budget(controller).as_ref());
        let words = words_of_panel(controller, &found);
        out.extend(words.into_iter().map(|w| Finding::of(&controller.name, w)));
    }
    out
}

/// A percent that the panel cannot be set to makes no controller, but it is a finding all the same.
fn cannot_dial(error: &SiteError) -> Option<Finding> {
    let SiteError::Controller { index, error: DocError::Controller(cause) } = error else { return None };
    let ControllerError::CannotDial { percent, step, min, max, .. } = cause else { return None };
    let (step, asked) = ((*step).max(1), percent.get());
    let nearest = ((asked + step / 2) / step * step).clamp(*min, *max);
    Some(Finding {
        controller: format!("controllers[{index}]"),
        code: "percent_out_of_range",
        severity: "fault",
        message: cause.to_string(),
        at_stake: String::new(),
        repair: format!("Dial {nearest} %"),
    })
}
