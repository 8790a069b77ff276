//! The water windows of a panel as a form.

use upland_core::controller::{ClockFace, Hours};
use upland_core::quantity::range;

use crate::form::Form;
use crate::pages::days_form::read_hours;
use crate::show::panel_start;

/// A row of the form, by its fields.
#[derive(Debug, Clone)]
pub(crate) struct WindowRow {
    pub(crate) number: String,
    pub(crate) from: String,
    pub(crate) to: String,
}

/// A row for each window that a panel may keep.
pub(crate) fn rows() -> Vec<WindowRow> {
    // A handful, by its own limits.
    (0..range::WATER_WINDOWS.max as usize)
        .map(|n| WindowRow { number: (n + 1).to_string(), from: format!("window{n}from"), to: format!("window{n}to") })
        .collect()
}

/// Fills the form, in the hours of the panel's clock.
pub(super) fn fill(form: &mut Form, windows: &[Hours], face: ClockFace) {
    for (row, window) in rows().iter().zip(windows) {
        form.set(&row.from, panel_start(window.from, face));
        form.set(&row.to, panel_start(window.to, face));
    }
}

/// Windows in a line; empty for none.
pub(crate) fn line(windows: &[Hours], face: ClockFace) -> String {
    let one = |w: &Hours| format!("{}–{}", panel_start(w.from, face), panel_start(w.to, face));
    windows.iter().map(one).collect::<Vec<_>>().join(", ")
}

/// Reads the windows; errors stand beside their fields.
pub(super) fn read(form: &mut Form) -> Vec<Hours> {
    rows().iter().filter_map(|row| read_hours(form, &row.from, &row.to)).collect()
}
