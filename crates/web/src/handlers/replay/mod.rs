pub(crate) mod apply;
pub(crate) mod best;
pub(crate) mod days;
pub(crate) mod drawing;
pub(crate) mod list;
pub(crate) mod place;
pub(crate) mod preview;
pub(crate) mod show;

use chrono::NaiveDate;
use upland_core::found::Panel;
use uuid::Uuid;

use crate::apart::apart;
use crate::context::{ControllerContext, WeatherDay};
use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::replay::{Asked, Field, ReplayView, ViewInput};
use crate::show::Units;
use crate::state::App;

/// Everything that a replay of a controller is made from, loaded.
struct Loaded {
    context: ControllerContext,
    days: Vec<WeatherDay>,
    found: Option<Panel>,
}

impl Loaded {
    async fn of(app: &App, user: &SignedIn, id: Uuid) -> Result<Self, PageError> {
        let context = loading::controller(&user.account, app.clock, id).await?;
        let days = days_on_record(user, &context).await?;
        let records = user.account.newest_records(&[context.controller.id]).await?;
        let found = FieldState::of(&records).panel_still_found().cloned();
        Ok(Self { context, days, found })
    }

    fn href(&self) -> String {
        format!("/controllers/{}/replay", self.context.controller.id)
    }

    fn found_on(&self) -> Option<NaiveDate> {
        self.found.as_ref().map(|p| p.seen_at.date())
    }

    /// The page of a form; nothing without stations or weather by the day.
    fn view(&self, mut form: Form, units: Units) -> Option<ReplayView> {
        let field = Field::of(&self.context, &self.days, self.found.as_ref())?;
        let asked = Asked::read(&mut form, (&field.controller, &field.plan), &self.days)?;
        ReplayView::of(ViewInput {
            field: &field,
            days: &self.days,
            asked: &asked,
            form,
            href: self.href(),
            found_on: self.found_on(),
            units,
        })
    }

    /// As [`Loaded::view`], away from the threads that answer requests.
    async fn view_apart(self, form: Form, units: Units) -> Result<(Self, Option<ReplayView>), PageError> {
        apart(move || {
            let view = self.view(form, units);
            (self, view)
        })
        .await
    }
}
