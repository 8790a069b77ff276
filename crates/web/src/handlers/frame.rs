//! What stands round every page of a controller: masthead, steps, year strip.

use upland_core::controller::ProgramLetter;

use crate::context::ControllerContext;
use crate::error::PageError;
use crate::guard::signed_in::SignedIn;
use crate::handlers::strips::strips;
use crate::pages::frame::Frame;
use crate::pages::shell::{Shell, ShellInput, View};
use crate::pages::spine::{Spine, Step};
use crate::state::App;

/// The shell of a page of a view, with the user's last action to undo.
pub(crate) fn shell(
    app: &App,
    user: &SignedIn,
    view: View,
    body_class: &'static str,
    title: String,
    path: &str,
) -> Shell {
    Shell::of(ShellInput {
        view,
        body_class,
        title,
        path,
        user_name: &user.user.name,
        company: &user.user.account_name,
        token: &user.token,
        units: user.units,
        role: user.user.role,
        last_action: user.last_action.as_ref(),
        now: app.clock.now().naive_utc(),
    })
}

/// The frame of a page that looks at no program in particular; `path` is where it stands, for undo.
pub(crate) async fn frame(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    step: Step,
    names: [&'static str; 2],
    path: &str,
) -> Result<Frame, PageError> {
    frame_of(app, user, context, step, names, path, None).await
}

/// The frame of a page whose strip is that of a program; `[class, title]`: the page's class, and the key
/// of its title.
pub(crate) async fn frame_of(
    app: &App,
    user: &SignedIn,
    context: &ControllerContext,
    step: Step,
    [class, title]: [&'static str; 2],
    path: &str,
    letter: Option<ProgramLetter>,
) -> Result<Frame, PageError> {
    let title = crate::words::Words.t(title);
    let mut shell = shell(app, user, View::Places, class, title, path);
    let (strip, ephemeris) = strips(app, user, context, letter).await?;
    shell.ephemeris = Some(ephemeris);
    Ok(Frame { shell, spine: Spine::of(context, step), strip })
}
