//! What stands round every page of a controller: masthead, steps, year strip.

use upland_core::controller::ProgramLetter;

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

/// The frame of a page that looks at no program in particular; `path` is where it stands, for undo.
pub(crate) async fn frame(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    step: Step,
    names: [&'static str; 2],
    path: &str,
) -> Result<Frame, PageError> {
    frame_of(app, user, desk, step, names, path, None).await
}

/// The frame of a page whose strip is that of a program; `[class, title]`: the page's class, and the key
/// of its title.
pub(crate) async fn frame_of(
    app: &App,
    user: &SignedIn,
    desk: &Desk,
    step: Step,
    [class, title]: [&'static str; 2],
    path: &str,
    letter: Option<ProgramLetter>,
) -> Result<Frame, PageError> {
    let title = crate::words::Words.t(title);
    let mut shell = Shell::of(app, user, View::Places, class, title, path).await?;
    let (strip, ephemeris) = strips(app, user, desk, letter).await?;
    shell.ephemeris = Some(ephemeris);
    Ok(Frame { shell, spine: Spine::of(desk, step), strip })
}
