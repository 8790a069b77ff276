use super::ground::Part;

/// A balance of one part of one station, day by day, as arrays over the dates of the season.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Daily {
    /// What the plants would use with enough water, mm.
    pub et_l_mm: Vec<f64>,
    /// What they used, mm.
    pub et_actual_mm: Vec<f64>,
    /// Rain that reached the surface, mm.
    pub rain_mm: Vec<f64>,
    /// Water put on the surface, mm.
    pub applied_mm: Vec<f64>,
    /// What of rain and water ran off, mm.
    pub runoff_mm: Vec<f64>,
    /// What sank below the roots, mm.
    pub percolation_mm: Vec<f64>,
    /// Water missing to field capacity at the end of the day, mm.
    pub depletion_mm: Vec<f64>,
    /// Stress coefficient.
    pub ks: Vec<f64>,
}

/// Sums of a balance, mm over the season.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct PartTotals {
    /// What the plants would have used with enough water.
    pub et_l_mm: f64,
    /// What they used.
    pub et_actual_mm: f64,
    /// Rain that reached the surface.
    pub rain_mm: f64,
    /// Water put on the surface.
    pub applied_mm: f64,
    /// What of rain and water ran off.
    pub runoff_mm: f64,
    /// What sank below the roots.
    pub percolation_mm: f64,
    /// Days with a stress coefficient under [`PartTotals::STRESS`].
    pub stress_days: u32,
}

impl PartTotals {
    /// A day counts as one of stress under this K_s. Ours: a tenth of the demand not met.
    pub const STRESS: f64 = 0.9;

    /// Share of the demand that was met, 0 to 1; 1 where there was none.
    #[must_use]
    pub fn adequacy(&self) -> f64 {
        if self.et_l_mm > 0.0 { self.et_actual_mm / self.et_l_mm } else { 1.0 }
    }

    /// What the soil holds more at the end of the season than at its beginning, mm; below 0 it holds less. By eq. 85 of
    /// \[FAO-56\] the other sums leave exactly this.
    #[must_use]
    pub fn gained_mm(&self) -> f64 {
        self.rain_mm + self.applied_mm - self.runoff_mm - self.percolation_mm - self.et_actual_mm
    }

    /// Water lost: what ran off and what sank below the roots, of rain and water together, mm.
    #[must_use]
    pub fn lost_mm(&self) -> f64 {
        self.runoff_mm + self.percolation_mm
    }
}

/// A station's season.
#[derive(Debug, Clone, PartialEq)]
pub struct StationReplay {
    /// Terminal number.
    pub number: u8,
    /// Sums of the average and of the driest quarter.
    pub totals: [PartTotals; 2],
    /// Waterings.
    pub waterings: f64,
    /// Waterings on a day with more rain than [`StationReplay::WET_DAY_MM`].
    pub in_rain: f64,
    /// Waterings on a day with frost.
    pub in_frost: f64,
    /// Watered area, m², where it is known.
    pub area_m2: Option<f64>,
    /// The days, where they were asked for.
    pub daily: Option<[Daily; 2]>,
}

impl StationReplay {
    /// From so much rain on a day a watering counts as one in the rain, mm. Ours.
    pub const WET_DAY_MM: f64 = 5.0;

    /// Sums of a part.
    #[must_use]
    pub const fn part(&self, part: Part) -> &PartTotals {
        &self.totals[part.index()]
    }

    /// Water let out, m³, where the area is known.
    #[must_use]
    pub fn volume_m3(&self) -> Option<f64> {
        self.area_m2.map(|a| self.totals[Part::Average.index()].applied_mm * a / 1000.0)
    }
}

/// A whole controller's season under one strategy.
#[derive(Debug, Clone, PartialEq)]
pub struct Replayed {
    /// Its stations, by number.
    pub stations: Vec<StationReplay>,
    /// Days with water on a date that the rules close.
    pub rule_breaks: u32,
}

/// A season's sums over some stations.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct WholeTotals {
    /// Water applied, mm, mean over the stations by area; by number where an area is not known.
    pub applied_mm: f64,
    /// Rain, the same mean.
    pub rain_mm: f64,
    /// Run off and percolated, the same mean.
    pub lost_mm: f64,
    /// Run off, the same mean.
    pub runoff_mm: f64,
    /// Share of the demand that was met, on average.
    pub adequacy: f64,
    /// Days of stress in the driest quarter, of the station that has most.
    pub stress_days: u32,
    /// Waterings: the most of any station.
    pub waterings: f64,
    /// Waterings on wet days: the most of any station.
    pub in_rain: f64,
    /// Waterings on days with frost: the most of any station.
    pub in_frost: f64,
    /// Water let out by stations of known area, m³.
    pub volume_m3: Option<f64>,
}

impl Replayed {
    /// A station's season.
    #[must_use]
    pub fn station(&self, number: u8) -> Option<&StationReplay> {
        self.stations.iter().find(|s| s.number == number)
    }

    /// The stations of several controllers as one; numbers of stations may then be there twice.
    #[must_use]
    pub fn joined(all: impl IntoIterator<Item = Self>) -> Self {
        let mut out = Self { stations: Vec::new(), rule_breaks: 0 };
        for one in all {
            out.stations.extend(one.stations);
            out.rule_breaks += one.rule_breaks;
        }
        out
    }

    /// Sums over the stations of a list, or over all of them.
    #[must_use]
    pub fn totals(&self, only: Option<&[u8]>) -> WholeTotals {
        let own: Vec<&StationReplay> =
            self.stations.iter().filter(|s| only.is_none_or(|o| o.contains(&s.number))).collect();
        let by_area = own.iter().all(|s| s.area_m2.is_some());
        let weight = |s: &StationReplay| if by_area { s.area_m2.unwrap_or(1.0) } else { 1.0 };
        let all: f64 = own.iter().map(|s| weight(s)).sum();
        let mean = |of: fn(&PartTotals) -> f64| {
            if all > 0.0 { own.iter().map(|s| weight(s) * of(&s.totals[0])).sum::<f64>() / all } else { 0.0 }
        };
        let most = |of: fn(&StationReplay) -> f64| own.iter().map(|s| of(s)).fold(0.0, f64::max);
        let (wanted, used) = (mean(|t| t.et_l_mm), mean(|t| t.et_actual_mm));
        WholeTotals {
            applied_mm: mean(|t| t.applied_mm),
            rain_mm: mean(|t| t.rain_mm),
            lost_mm: mean(PartTotals::lost_mm),
            runoff_mm: mean(|t| t.runoff_mm),
            adequacy: if wanted > 0.0 { used / wanted } else { 1.0 },
            stress_days: own.iter().map(|s| s.totals[1].stress_days).max().unwrap_or(0),
            waterings: most(|s| s.waterings),
            in_rain: most(|s| s.in_rain),
            in_frost: most(|s| s.in_frost),
            volume_m3: own.iter().map(|s| s.volume_m3()).sum(),
        }
    }
}
