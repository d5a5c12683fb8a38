//! The box of a design: what goes in, what it comes to, and what that does to the tuning.

use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Compiled, Enclosure, PortTuning};
use oak_cabinetry::{BuildError, Cabinet, Contents, DriverSize, PortSize, RadiatorSize};

use crate::file::RawArrangement;
use crate::problem::{Problem, ProblemKind};
use crate::resolve::ResolvedDesign;

/// Distance between the two drivers of a pair over the depth of one (common practice, as the drawings have it).
fn pair_distance(arrangement: RawArrangement) -> f64 {
    match arrangement {
        RawArrangement::FaceToFace => 0.35,
        RawArrangement::InLine => 1.05,
        RawArrangement::BackToBack => 2.05,
    }
}

fn ports_of(ports: &[oak_acoustics::enclosure::Port], tuning: Option<&PortTuning>) -> Vec<PortSize> {
    let lengths = tuning.map(|tuning| tuning.ports.as_slice()).unwrap_or_default();
    ports
        .iter()
        .zip(lengths)
        .map(|(port, found)| PortSize {
            section: port.section,
            length: found.length,
            count: port.count,
            walls: if let End::Walls(walls) = port.inner { u32::from(walls) } else { 0 },
        })
        .collect()
}

impl ResolvedDesign {
    /// What goes into its box; `None` where there is none, or where the box is all way and no chamber.
    pub fn contents(&self, compiled: &Compiled) -> Option<Contents> {
        let [rear, front] = self.volumes;
        let divided = matches!(self.enclosure, Enclosure::Bandpass4(_) | Enclosure::Bandpass6(_));
        let boxed = match &self.enclosure {
            Enclosure::InfiniteBaffle | Enclosure::OpenBaffle(_) | Enclosure::TappedHorn(_) => false,
            // A line's own chamber is part of its way.
            Enclosure::Line(line) => line.chamber.is_some() && rear.is_some() && line.driver_at == 0.0,
            _ => true,
        };
        if !boxed {
            return None;
        }
        let front_ports = |ports| ports_of(ports, compiled.port_tuning.as_ref());
        let (ports, through) = match &self.enclosure {
            Enclosure::Ported(ported) => ([front_ports(&ported.ports), Vec::new()], false),
            Enclosure::Bandpass4(bandpass) => ([Vec::new(), front_ports(&bandpass.front.ports)], false),
            Enclosure::Bandpass6(bandpass) => {
                let rear = ports_of(&bandpass.rear.ports, compiled.rear_tuning.as_ref());
                let series = bandpass.path == oak_acoustics::enclosure::FrontPath::Series;
                ([rear, front_ports(&bandpass.front.ports)], series)
            }
            _ => ([Vec::new(), Vec::new()], false),
        };
        let radiators = match &self.enclosure {
            Enclosure::PassiveRadiator(cabinet) => {
                let radiator = &cabinet.radiator;
                let cone = (4.0 * radiator.area / std::f64::consts::PI).sqrt();
                Some(RadiatorSize { cone, count: radiator.count })
            }
            _ => None,
        };
        Some(Contents {
            drivers: self.driver_size(),
            wanted: [rear, if divided { front } else { None }],
            ports,
            through,
            radiators,
            gain: self.gains,
        })
    }

    /// How large its drivers are.
    pub fn driver_size(&self) -> DriverSize {
        let record = &self.driver.record;
        let sizes = [record.size, record.cutout, record.depth, record.magnet];
        let size = DriverSize::of(self.driver.driver.sd, sizes, record.displacement);
        DriverSize {
            count: self.motor.wiring.count(),
            pair: self.arrangement.map(|arrangement| pair_distance(arrangement) * size.depth),
            ..size
        }
    }

    /// Builds its box; `None` where there is none.
    ///
    /// # Errors
    /// A shape that cannot be built, with its place.
    pub fn build(&self, compiled: &Compiled) -> Result<Option<(Contents, Cabinet)>, Problem> {
        let Some(contents) = self.contents(compiled) else { return Ok(None) };
        let cabinet = self.body.build(&contents).map_err(unbuildable)?;
        Ok(Some((contents, cabinet)))
    }

    /// The design as its box leaves it, see [`Self::as_built`]; `None` where more goes in than there is room.
    pub fn built_in(&self, compiled: &Compiled, cabinet: &Cabinet) -> Option<Self> {
        let net = |index: usize| cabinet.chambers.get(index).map(|chamber| chamber.ledger.net());
        let nets = [net(0), net(1)];
        let room = nets.iter().flatten().all(|volume| *volume > 0.0);
        room.then(|| self.as_built(compiled, nets))
    }

    /// What the built chambers hold, with ports made as long as the tuning then needs: volume and lengths solved together. Of
    /// a design whose ports have their lengths, what is left beside them.
    ///
    /// # Errors
    /// What cannot be tuned or built.
    pub fn settle(&self) -> Result<Option<Settled>, Problem> {
        let mut now = self.clone();
        let mut compiled = now.compile()?;
        let Some(mut contents) = now.contents(&compiled) else { return Ok(None) };
        // Larger boxes need shorter ports and leave more room: from above, the steps fall to the largest solution.
        let mut net = now.body.net(&without_ports(&contents)).map_err(unbuildable)?;
        for _ in 0..ROUNDS {
            if net.iter().flatten().any(|volume| *volume <= 0.0) {
                return Ok(None);
            }
            now.volumes = net;
            now.enclosure = now.enclosure.with_volumes(apparent(net, self.gains));
            compiled = now.compile()?;
            let Some(next) = now.contents(&compiled) else { return Ok(None) };
            // What is wanted decides where a partition stands, so that stays.
            contents = Contents { wanted: contents.wanted, ..next };
            let left = now.body.net(&contents).map_err(unbuildable)?;
            let moved = (0..2).any(|k| left[k].zip(net[k]).is_some_and(|(a, b)| (a - b).abs() > 1e-9));
            net = left;
            if !moved {
                break;
            }
        }
        Ok(Some(Settled { net, compiled }))
    }

    /// The same design in the volumes that its box leaves (m3), ports as long as they were cut for the wanted ones.
    fn as_built(&self, compiled: &Compiled, net: [Option<f64>; 2]) -> Self {
        let enclosure =
            self.enclosure.with_volumes(apparent(net, self.gains)).with_lengths(&compiled.lengths());
        let mut built = self.clone();
        (built.enclosure, built.volumes) = (enclosure, net);
        built
    }
}

/// Most rounds of [`ResolvedDesign::settle`].
const ROUNDS: usize = 60;

/// A box and its tuning, found together.
#[derive(Debug)]
pub struct Settled {
    /// Net volumes behind and before the drivers, m3.
    pub net: [Option<f64>; 2],
    /// The design in them.
    pub compiled: Compiled,
}

fn apparent(net: [Option<f64>; 2], gains: [f64; 2]) -> [Option<f64>; 2] {
    [0, 1].map(|k| net[k].map(|net| net * gains[k]))
}

fn without_ports(contents: &Contents) -> Contents {
    Contents { ports: [Vec::new(), Vec::new()], ..contents.clone() }
}

pub(crate) fn unbuildable(error: BuildError) -> Problem {
    let place = match error {
        BuildError::Shape(oak_cabinetry::geometry::ShapeError::TooLarge { what, .. }) => {
            format!("body.{what}")
        }
        _ => "body".to_owned(),
    };
    Problem::new(place, ProblemKind::Unbuildable { reason: error.to_string() })
}
