//! Ways to water, and the card of the way that needs a person.

pub(crate) mod card;
pub(crate) mod show;
