//! Findings with their repairs.

use chrono::TimeZone;

use super::finding::{Finding, Key};
use super::findings::detect;
use super::repair::Repair;
use super::repairs::candidates;
use super::situation::Situation;
use crate::controller::Controller;

/// What is wrong with a controller's schedule, worst first, each with its repair where there is
/// one. A repair is offered only when it takes its own finding away and adds none.
#[must_use]
pub fn check<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller) -> Vec<Finding> {
    let mut findings = detect(situation, controller);
    let keys: Vec<Key> = findings.iter().map(Finding::key).collect();
    for finding in &mut findings {
        finding.repair = candidates(situation, controller, finding).into_iter().find(|candidate| {
            candidate.applied(controller).is_some_and(|mended| {
                let after = detect(situation, &mended);
                !after.iter().any(|f| f.key() == finding.key()) && after.iter().all(|f| f.is_known(&keys))
            })
        });
    }
    findings
}

/// Makes every repair, one after another, each looked for anew; gives the controller and what was
/// done, in order.
#[must_use]
pub fn repair_all<Tz: TimeZone>(situation: &Situation<'_, Tz>, controller: &Controller) -> (Controller, Vec<Repair>) {
    let mut mended = controller.clone();
    let mut done = Vec::new();
    // Each repair takes a finding away and adds none, so this ends; the bound is for safety.
    for _ in 0..64 {
        let next = check(situation, &mended).into_iter().find_map(|f| f.repair);
        let Some((repair, after)) = next.and_then(|r| r.applied(&mended).map(|after| (r, after))) else { break };
        mended = after;
        done.push(repair);
    }
    (mended, done)
}
