//! Horns before the drivers and around them.

use super::passage::{first_resonance, helmholtz};
use super::{CompileError, Compiled, PassageFacts, Sealed, Setting};
use crate::element::End;
use crate::network::{Network, Node, Reference};
use crate::profile::Profile;

/// A horn before the drivers, a closed chamber behind them.
#[derive(Debug, Clone, PartialEq)]
pub struct FrontHorn {
    /// Behind the drivers.
    pub rear: Sealed,
    /// Between the drivers and the throat.
    pub throat: Option<Sealed>,
    /// From the throat to the mouth.
    pub profile: Profile,
    /// What the air meets at the mouth.
    pub mouth: End,
}

/// A horn that both sides of the drivers speak into, one near its throat and one near its mouth.
#[derive(Debug, Clone, PartialEq)]
pub struct TappedHorn {
    /// From the closed throat to the mouth.
    pub profile: Profile,
    /// Where the rear and the front of the drivers speak into it, m from the throat.
    pub taps: [f64; 2],
    /// What the air meets at the mouth.
    pub mouth: End,
}

impl FrontHorn {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        self.profile.checked()?;
        let mut network = setting.network();
        network.reference = Reference::Passband;
        let [front, rear] = [network.node(), network.node()];
        setting.mount(&mut network, [front, rear]);
        self.rear.install(&mut network, rear);
        if let Some(Sealed { volume, losses }) = self.throat {
            let omega = helmholtz(volume, self.profile.mass(&setting.air), &setting.air);
            losses.install(&mut network, front, volume, omega);
        }
        self.profile.install_mouth(&mut network, 0.0, front, [None, Some(self.mouth)], 0.0, setting.fidelity);
        network.chamber("Rear chamber", rear);
        network.chamber("Throat", front);
        let closed_box = Some(self.rear.closed_box(&setting.driver(), &setting.air));
        let passage = Some(PassageFacts::of(&self.profile, &setting.air));
        Ok(Compiled { closed_box, passage, ..Compiled::of(network) })
    }
}

impl TappedHorn {
    pub(super) fn compile(&self, setting: &Setting) -> Result<Compiled, CompileError> {
        self.profile.checked()?;
        let (length, [first, second]) = (self.profile.length(), self.taps);
        for (at, is_second) in [(first, false), (second, true)] {
            if at >= length {
                return Err(CompileError::BeyondEnd { length, second: is_second });
            }
        }
        if second <= first {
            return Err(CompileError::TapsReversed { first });
        }
        let mut network = setting.network();
        network.reference = Reference::Passband;
        let [rear, front] = self.install(&mut network, setting);
        setting.mount(&mut network, [front, rear]);
        network.chamber("Near the throat", rear);
        network.chamber("Near the mouth", front);
        let passage = Some(PassageFacts::of(&self.profile, &setting.air));
        Ok(Compiled { passage, ..Compiled::of(network) })
    }

    pub(super) fn resonance(&self, setting: &Setting) -> Option<f64> {
        let mut network = setting.network();
        let [rear, _] = self.install(&mut network, setting);
        first_resonance(&network, rear)
    }

    /// Adds the horn and returns where both sides of the drivers speak into it.
    fn install(&self, network: &mut Network, setting: &Setting) -> [Node; 2] {
        let [first, second] = self.taps;
        let [rear, front] = [network.node(), network.node()];
        if first > 0.0 {
            let closed = network.node();
            self.profile.install(network, [0.0, first], [closed, rear], [None, None], setting.fidelity);
        }
        self.profile.install(network, [first, second], [rear, front], [None, None], setting.fidelity);
        self.profile.install_mouth(network, second, front, [None, Some(self.mouth)], 0.0, setting.fidelity);
        [rear, front]
    }
}
