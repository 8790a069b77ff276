pub(crate) mod apply;
pub(crate) mod best;
pub(crate) mod days;
pub(crate) mod drawing;
pub(crate) mod list;
pub(crate) mod place;
pub(crate) mod preview;
pub(crate) mod show;

use std::sync::LazyLock;

use chrono::NaiveDate;
use upland_core::found::Panel;
use uuid::Uuid;

use crate::apart::apart;
use crate::context::{ControllerContext, Weather, WeatherDay};
use crate::error::PageError;
use crate::form::Form;
use crate::guard::signed_in::SignedIn;
use crate::handlers::sensors::days_on_record;
use crate::loading;
use crate::pages::field::FieldState;
use crate::pages::replay::{Asked, Field, KnownBeside, ReplayView, ViewInput};
use crate::show::Units;
use crate::state::App;

/// Everything that a replay of a controller is made from, loaded.
struct Loaded {
    context: ControllerContext,
    days: Vec<WeatherDay>,
    found: Option<Panel>,
    /// The record of the panel as it was last found.
    found_record: Option<Uuid>,
}

impl Loaded {
    async fn of(app: &App, user: &SignedIn, id: Uuid) -> Result<Self, PageError> {
        let context = loading::controller(&user.account, app.clock, id).await?;
        let days = days_on_record(user, &context).await?;
        let records = user.account.newest_records(&[context.controller.id]).await?;
        let state = FieldState::of(&records);
        let found_record = state.found.as_ref().map(|(record, _)| record.id);
        Ok(Self { context, days, found: state.panel_still_found().cloned(), found_record })
    }

    fn href(&self) -> String {
        format!("/controllers/{}/replay", self.context.controller.id)
    }

    fn found_on(&self) -> Option<NaiveDate> {
        self.found.as_ref().map(|p| p.seen_at.date())
    }

    /// Everything that a replay follows from, the question left out.
    fn basis(&self) -> String {
        let ControllerContext { controller, at, .. } = &self.context;
        let imports = at.weather.as_ref().map(Weather::imports);
        let found = self.found.as_ref().map(|_| self.found_record);
        format!("{} {} {} {imports:?} {found:?}", controller.id, controller.version, at.place.version)
    }

    /// The page of a form; nothing without stations or weather by the day.
    fn view(&self, mut form: Form, units: Units) -> Option<ReplayView> {
        let field = Field::of(&self.context, &self.days, self.found.as_ref())?;
        let asked = Asked::read(&mut form, (&field.controller, &field.plan), &self.days)?;
        static KNOWN: LazyLock<KnownBeside> = LazyLock::new(KnownBeside::default);
        let beside = KNOWN.of(&self.basis(), &field, &asked, &self.days)?;
        ReplayView::of(ViewInput {
            beside: &beside,
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
