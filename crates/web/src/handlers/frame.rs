//! What stands round every page of a controller: masthead, steps, year strip.

use crate::app::App;
use crate::charts::Strip;
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::handlers::strips::strips;
use crate::pages::desk::Desk;
use crate::pages::shell::{Shell, View};
use crate::pages::spine::{Spine, Step};

/// Masthead, steps and year strip of a controller's page.
#[derive(Debug, Clone)]
pub(crate) struct Frame {
    pub(crate) shell: Shell,
    pub(crate) spine: Spine,
    pub(crate) strip: Option<[Strip; 2]>,
}

/// The frame of a page; `path` is where the page stands, for undo.
pub(crate) async fn frame(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    step: Step,
    [class, title]: [&'static str; 2],
    path: &str,
) -> Result<Frame, PageError> {
    let title = crate::words::Words.t(title);
    let mut shell = Shell::of(app, user, View::Places, class, title, path).await?;
    let (strip, ephemeris) = strips(app, user, desk, None).await?;
    shell.ephemeris = Some(ephemeris);
    Ok(Frame { shell, spine: Spine::of(desk, step), strip })
}
