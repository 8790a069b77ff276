use crate::error::Page;
use crate::guard::posted::Posted;
use crate::guard::signed_in::SignedIn;
use crate::handlers::go;
use crate::show::Units;

/// Sets the units in which the user reads and types.
pub(crate) async fn set(user: SignedIn, Posted(form): Posted) -> Page {
    let units = Units::of_word(form.get("units"));
    user.account.set_units(user.user.id, units.word()).await?;
    go(form.get("back"))
}
