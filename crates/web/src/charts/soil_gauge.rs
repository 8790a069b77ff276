//! What is left in a root zone, between field capacity at the top and the wilting point at the foot.

use upland_core::replay::SoilNow;

use crate::show::Fixed;

/// A gauge of 18 by 44.
#[derive(Debug, Clone)]
pub(crate) struct SoilGauge {
    /// Where the water stands.
    pub(crate) level: Fixed,
    pub(crate) height: Fixed,
    /// Where the plants begin to feel the lack.
    pub(crate) refill: Fixed,
    /// How far the crust reaches from there down to the water; 0 while they feel nothing.
    pub(crate) crust: Fixed,
}

const TOP: f64 = 2.0;
const FOOT: f64 = 42.0;

impl SoilGauge {
    pub(crate) fn draw(soil: &SoilNow) -> Self {
        let y = |share: f64| FOOT - share.clamp(0.0, 1.0) * (FOOT - TOP);
        let (level, refill) = (y(soil.share_left()), y(soil.refill_share()));
        Self {
            level: Fixed(level),
            height: Fixed(FOOT - level),
            refill: Fixed(refill),
            crust: Fixed((level - refill).max(0.0)),
        }
    }
}
