//! Cabinet families: one compile function each, from a cabinet to a network.
//!
//! This is the only folder that knows families. A new one is a new file here with a `compile`
//! and one more variant of [`Enclosure`].

mod aperiodic;
mod bandpass;
mod chamber_model;
mod compiled;
mod feed;
mod horn;
mod infinite_baffle;
mod line;
mod open_baffle;
mod passage;
mod passive_radiator;
mod ported;
mod sealed;
mod setting;

pub use aperiodic::Aperiodic;
pub use bandpass::{Bandpass4, Bandpass6, FrontPath};
pub use chamber_model::ChamberModel;
pub use compiled::{
    ClosedBox, CompileError, Compiled, Losses, PassageFacts, PortLength, PortTuning, RadiatorTuning,
};
pub use horn::{FrontHorn, TappedHorn};
pub use line::{Line, Mouth};
pub use open_baffle::OpenBaffle;
pub use passive_radiator::{PassiveRadiator, Radiator};
pub use ported::{Port, Ported};
pub use sealed::Sealed;
pub use setting::{Fidelity, Setting};

use crate::profile::Profile;

/// A cabinet, complete and in SI.
#[derive(Debug, Clone, PartialEq)]
pub enum Enclosure {
    /// A wall so wide that nothing comes around it.
    InfiniteBaffle,
    /// A baffle that the sound of the rear comes around.
    OpenBaffle(OpenBaffle),
    /// A closed box.
    Sealed(Sealed),
    /// A box with a resistive vent.
    Aperiodic(Aperiodic),
    /// A box with one or more ports.
    Ported(Ported),
    /// A box with passive diaphragms.
    PassiveRadiator(PassiveRadiator),
    /// A closed chamber behind the driver and a ported one before it.
    Bandpass4(Bandpass4),
    /// Two ported chambers.
    Bandpass6(Bandpass6),
    /// A way out behind the drivers: line, mass-loaded line, back-loaded horn, slot and flare.
    Line(Line),
    /// A horn before the drivers.
    FrontHorn(FrontHorn),
    /// A horn that both sides of the drivers speak into.
    TappedHorn(TappedHorn),
}

/// A line or horn.
#[derive(Debug, Clone, Copy)]
pub enum Duct<'a> {
    /// Behind the drivers.
    Line(&'a Line),
    /// Before them.
    FrontHorn(&'a FrontHorn),
    /// Both sides of them speak into it.
    TappedHorn(&'a TappedHorn),
}

impl Enclosure {
    /// Air in all its chambers and ways together, without the ports, m3.
    pub fn air(&self) -> f64 {
        let chamber = |chamber: &Option<Sealed>| chamber.map_or(0.0, |chamber| chamber.volume);
        match self {
            Self::InfiniteBaffle | Self::OpenBaffle(_) => 0.0,
            Self::Sealed(sealed) => sealed.volume,
            Self::Aperiodic(aperiodic) => aperiodic.chamber.volume,
            Self::Ported(ported) => ported.volume,
            Self::PassiveRadiator(cabinet) => cabinet.volume,
            Self::Bandpass4(bandpass) => bandpass.rear.volume + bandpass.front.volume,
            Self::Bandpass6(bandpass) => bandpass.rear.volume + bandpass.front.volume,
            Self::Line(line) => line.profile.volume() + chamber(&line.chamber),
            Self::FrontHorn(horn) => horn.profile.volume() + horn.rear.volume + chamber(&horn.throat),
            Self::TappedHorn(horn) => horn.profile.volume(),
        }
    }

    /// The same with chambers of other volumes behind and before the drivers (m3, as they seem with their fill); those not given
    /// stay.
    #[must_use]
    pub fn with_volumes(&self, [behind, before]: [Option<f64>; 2]) -> Self {
        let mut changed = self.clone();
        let set = |volume: &mut f64, to: Option<f64>| *volume = to.unwrap_or(*volume);
        match &mut changed {
            Self::InfiniteBaffle | Self::OpenBaffle(_) | Self::TappedHorn(_) => {}
            Self::Sealed(sealed) => set(&mut sealed.volume, behind),
            Self::Aperiodic(aperiodic) => set(&mut aperiodic.chamber.volume, behind),
            Self::Ported(ported) => set(&mut ported.volume, behind),
            Self::PassiveRadiator(cabinet) => set(&mut cabinet.volume, behind),
            Self::Bandpass4(bandpass) => {
                set(&mut bandpass.rear.volume, behind);
                set(&mut bandpass.front.volume, before);
            }
            Self::Bandpass6(bandpass) => {
                set(&mut bandpass.rear.volume, behind);
                set(&mut bandpass.front.volume, before);
            }
            Self::Line(line) => {
                if let Some(chamber) = &mut line.chamber {
                    set(&mut chamber.volume, behind);
                }
            }
            Self::FrontHorn(horn) => set(&mut horn.rear.volume, behind),
        }
        changed
    }

    /// The line or horn that the drivers speak into, if they do.
    pub fn duct(&self) -> Option<Duct<'_>> {
        match self {
            Self::Line(line) => Some(Duct::Line(line)),
            Self::FrontHorn(horn) => Some(Duct::FrontHorn(horn)),
            Self::TappedHorn(horn) => Some(Duct::TappedHorn(horn)),
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Sealed(_)
            | Self::Aperiodic(_)
            | Self::Ported(_)
            | Self::PassiveRadiator(_)
            | Self::Bandpass4(_)
            | Self::Bandpass6(_) => None,
        }
    }

    /// Its radiators, if it has any.
    pub fn radiators(&self) -> Option<&PassiveRadiator> {
        match self {
            Self::PassiveRadiator(cabinet) => Some(cabinet),
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Sealed(_)
            | Self::Aperiodic(_)
            | Self::Ported(_)
            | Self::Bandpass4(_)
            | Self::Bandpass6(_)
            | Self::Line(_)
            | Self::FrontHorn(_)
            | Self::TappedHorn(_) => None,
        }
    }

    /// The way of a line or horn, and where the rear and the front of the drivers speak into it, m from its beginning.
    pub fn path(&self) -> Option<(&Profile, [f64; 2])> {
        self.duct().map(|duct| match duct {
            Duct::Line(line) => (&line.profile, [line.driver_at, 0.0]),
            Duct::FrontHorn(horn) => (&horn.profile, [0.0; 2]),
            Duct::TappedHorn(horn) => (&horn.profile, horn.taps),
        })
    }

    /// The same with another way, and the drivers elsewhere along it (m), as [`Self::path`] has them.
    #[must_use]
    pub fn with_path(&self, path: Profile, [rear, front]: [f64; 2]) -> Self {
        let mut changed = self.clone();
        match &mut changed {
            Self::Line(line) => (line.profile, line.driver_at) = (path, rear),
            Self::FrontHorn(horn) => horn.profile = path,
            Self::TappedHorn(horn) => (horn.profile, horn.taps) = (path, [rear, front]),
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Sealed(_)
            | Self::Aperiodic(_)
            | Self::Ported(_)
            | Self::PassiveRadiator(_)
            | Self::Bandpass4(_)
            | Self::Bandpass6(_) => {}
        }
        changed
    }

    /// Its ports behind and before the drivers; those of a box with one chamber or one line stand behind them, of a bandpass of the
    /// fourth order before.
    pub fn ports_mut(&mut self) -> [Option<&mut [Port]>; 2] {
        match self {
            Self::Ported(ported) => [Some(&mut ported.ports), None],
            Self::Bandpass4(bandpass) => [None, Some(&mut bandpass.front.ports)],
            Self::Bandpass6(bandpass) => [Some(&mut bandpass.rear.ports), Some(&mut bandpass.front.ports)],
            Self::Line(Line { mouth: Mouth::Ports(ports), .. }) => [Some(ports), None],
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Sealed(_)
            | Self::Aperiodic(_)
            | Self::PassiveRadiator(_)
            | Self::Line(_)
            | Self::FrontHorn(_)
            | Self::TappedHorn(_) => [None, None],
        }
    }

    /// The same with ports cut to lengths (m) behind and before the drivers, in their order; a box with one ported chamber takes
    /// the second list.
    #[must_use]
    pub fn with_lengths(&self, [behind, before]: &[Vec<f64>; 2]) -> Self {
        let mut changed = self.clone();
        let cut = |ported: &mut Ported, lengths: &[f64]| {
            ported.tuning = None;
            for (port, length) in ported.ports.iter_mut().zip(lengths) {
                port.length = Some(*length);
            }
        };
        match &mut changed {
            Self::Ported(ported) => cut(ported, before),
            Self::Bandpass4(bandpass) => cut(&mut bandpass.front, before),
            Self::Bandpass6(bandpass) => {
                cut(&mut bandpass.rear, behind);
                cut(&mut bandpass.front, before);
            }
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Sealed(_)
            | Self::Aperiodic(_)
            | Self::PassiveRadiator(_)
            | Self::Line(_)
            | Self::FrontHorn(_)
            | Self::TappedHorn(_) => {}
        }
        changed
    }

    /// Where the reactance on the box side of the cone is infinite and the cone stands still, Hz; of lines and tapped horns, for an
    /// open line near a quarter wave. Other families have theirs from their formulas.
    pub fn resonance(&self, setting: &Setting) -> Option<f64> {
        match self.duct()? {
            Duct::Line(line) => line.resonance(setting),
            Duct::TappedHorn(horn) => horn.resonance(setting),
            Duct::FrontHorn(_) => None,
        }
    }

    /// As [`Self::compile`], with the air of the chambers behind and before the drivers as models with waves; `None` for kinds of cabinets
    /// that have no such chambers.
    ///
    /// # Errors
    /// See [`CompileError`].
    pub fn compile_with_cavity(
        &self,
        setting: &Setting,
        [behind, before]: [Option<&ChamberModel>; 2],
    ) -> Result<Option<Compiled>, CompileError> {
        Ok(Some(match self {
            Self::Sealed(sealed) => sealed.compile_in(setting, behind),
            Self::Ported(ported) => ported.compile_in(setting, behind)?,
            Self::PassiveRadiator(cabinet) => cabinet.compile_in(setting, behind),
            Self::Bandpass4(bandpass) => bandpass.compile_in(setting, [behind, before])?,
            Self::Bandpass6(bandpass) => bandpass.compile_in(setting, [behind, before])?,
            Self::InfiniteBaffle
            | Self::OpenBaffle(_)
            | Self::Aperiodic(_)
            | Self::Line(_)
            | Self::FrontHorn(_)
            | Self::TappedHorn(_) => return Ok(None),
        }))
    }

    /// Compiles the cabinet for its drivers and surroundings.
    ///
    /// # Errors
    /// See [`CompileError`].
    pub fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        match self {
            Self::InfiniteBaffle => Ok(infinite_baffle::compile(setting)),
            Self::OpenBaffle(baffle) => Ok(baffle.compile(setting)),
            Self::Sealed(sealed) => Ok(sealed.compile(setting)),
            Self::Aperiodic(aperiodic) => Ok(aperiodic.compile(setting)),
            Self::Ported(ported) => ported.compile(setting),
            Self::PassiveRadiator(radiator) => Ok(radiator.compile(setting)),
            Self::Bandpass4(bandpass) => bandpass.compile(setting),
            Self::Bandpass6(bandpass) => bandpass.compile(setting),
            Self::Line(line) => line.compile(setting),
            Self::FrontHorn(horn) => horn.compile(setting),
            Self::TappedHorn(horn) => horn.compile(setting),
        }
    }
}
