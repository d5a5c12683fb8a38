//! The box of a design: what goes in, what it comes to, and what that does to the tuning.

use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Compiled, Duct, Enclosure, Mouth, PortTuning};
use oak_acoustics::medium::CrossSection;
use oak_acoustics::network::{Network, Node, OpeningKind};
use oak_acoustics::profile::{Flare, Profile, Segment};
use oak_cabinetry::modes;
use oak_cabinetry::{
    Body, BuildError, Cabinet, Contents, DriverSize, DuctPath, Laid, Pair, Part, PartKind, PortBuild,
    PortSize, RadiatorSize, Seat,
};

use crate::file::RawArrangement;
use crate::problem::{Problem, ProblemKind};
use crate::resolve::ResolvedDesign;

/// Where the second driver of a pair is, for one of a depth (m): distances over it, and between two rims, common practice.
fn pair(arrangement: RawArrangement, depth: f64) -> Pair {
    match arrangement {
        RawArrangement::FaceToFace => Pair::Before(BETWEEN_RIMS),
        RawArrangement::InLine => Pair::Behind(1.05 * depth),
        RawArrangement::BackToBack => Pair::Behind(2.05 * depth),
    }
}

/// Between the frames of two drivers that face each other, for their surrounds, m (common practice).
const BETWEEN_RIMS: f64 = 0.01;

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
            ends: [port.outer, port.inner],
            waist: port.waist,
        })
        .collect()
}

/// A design settled with its box: sizes, net volumes, cut ports, places and folded profile found together. Curves, figures, checks, drawings
/// and exports are all made of it.
#[derive(Debug)]
pub struct Built {
    /// The design in the air that its box leaves, ports as long as they are cut, ways as they are folded.
    pub design: ResolvedDesign,
    /// Its network.
    pub compiled: Compiled,
    /// Its box; absent where the cabinet has none, or where it cannot be built.
    pub boxed: Option<Boxed>,
    /// Why its box cannot be built; the design then stands as typed.
    pub unbuildable: Option<Problem>,
}

/// A box and what goes in.
#[derive(Debug, Clone, PartialEq)]
pub struct Boxed {
    /// What goes in.
    pub contents: Contents,
    /// With everything in its place.
    pub cabinet: Cabinet,
}

impl Built {
    /// Width, height and depth outside, m; `None` without a box.
    pub fn outside(&self) -> Option<[f64; 3]> {
        let [low, high] = self.boxed.as_ref()?.cabinet.outer.bounds();
        Some([0, 1, 2].map(|k| high[k] - low[k]))
    }

    /// Width, height and depth that it takes where it stands, with what stands proud of its boards, m; `None` without a box.
    pub fn standing(&self) -> Option<[f64; 3]> {
        let Boxed { contents, cabinet } = self.boxed.as_ref()?;
        let [low, high] = cabinet.standing(&self.design.body, contents);
        Some([0, 1, 2].map(|k| high[k] - low[k]))
    }

    /// Its box; `None` where the cabinet has none.
    ///
    /// # Errors
    /// Why it cannot be built.
    pub fn drawn(&self) -> Result<Option<&Boxed>, Problem> {
        self.unbuildable.clone().map_or(Ok(self.boxed.as_ref()), Err)
    }

    /// The lowest standing wave of the room behind the drivers, Hz; `None` without a box.
    pub fn lowest_wave(&self) -> Option<f64> {
        let room = &self.boxed.as_ref()?.cabinet.chambers.first()?.interior;
        let plain = modes::plain(&self.design.body.shape);
        let waves = modes::standing_waves(room, plain, self.design.air.speed, 700.0);
        waves.first().map(|wave| wave.frequency)
    }

    /// Whether the volume follows from sizes that are all stated.
    pub fn volume_follows(&self) -> bool {
        self.boxed.as_ref().is_some_and(|boxed| boxed.contents.path.is_none()) && self.design.body.sized()
    }

    /// What forbids building it, in words; nothing where it can be built.
    pub fn forbids(&self) -> Vec<String> {
        let found = self.boxed.iter().flat_map(|boxed| &boxed.cabinet.findings);
        let findings = found.filter(|finding| finding.forbids()).map(ToString::to_string);
        self.unbuildable.iter().map(|problem| problem.kind.to_string()).chain(findings).collect()
    }
}

/// Why a design and its box do not come together.
enum Unsettled {
    /// The box cannot be built.
    Unbuildable(Problem),
    /// The design itself cannot be worked out.
    Problem(Problem),
}

impl From<Problem> for Unsettled {
    fn from(problem: Problem) -> Self {
        match problem.kind {
            ProblemKind::Unbuildable { .. } => Self::Unbuildable(problem),
            _ => Self::Problem(problem),
        }
    }
}

impl ResolvedDesign {
    /// Air in all its chambers and ways together, without the ports and without what fill makes of it, m3.
    pub fn air(&self) -> f64 {
        self.enclosure.with_volumes(self.volumes).air()
    }

    /// What goes into its box; `None` where there is none.
    fn contents(&self, compiled: &Compiled) -> Option<Contents> {
        self.contents_tuned(compiled.rear_tuning.as_ref(), compiled.port_tuning.as_ref())
    }

    /// The same with ports as they were tuned behind and before the drivers; those of a box with one ported chamber come second.
    fn contents_tuned(&self, rear: Option<&PortTuning>, front: Option<&PortTuning>) -> Option<Contents> {
        let [behind, before] = self.volumes;
        let divided = matches!(self.enclosure, Enclosure::Bandpass4(_) | Enclosure::Bandpass6(_));
        if matches!(self.enclosure, Enclosure::InfiniteBaffle | Enclosure::OpenBaffle(_)) {
            return None;
        }
        let path = self.path();
        // Where there is no chamber before the way, the way is all there is.
        let wanted = match &path {
            Some(path) if matches!(path.seat, Seat::Chamber | Seat::Throat) => [behind, Some(path.volume())],
            Some(path) => [Some(path.volume()), None],
            None => [behind, if divided { before } else { None }],
        };
        let front_ports = |ports| ports_of(ports, front);
        let (ports, through) = match &self.enclosure {
            Enclosure::Ported(ported) => ([front_ports(&ported.ports), Vec::new()], false),
            Enclosure::Bandpass4(bandpass) => ([Vec::new(), front_ports(&bandpass.front.ports)], false),
            Enclosure::Bandpass6(bandpass) => {
                let rear = ports_of(&bandpass.rear.ports, rear);
                let series = bandpass.path == oak_acoustics::enclosure::FrontPath::Series;
                ([rear, front_ports(&bandpass.front.ports)], series)
            }
            Enclosure::Line(line) => {
                let ports = match &line.mouth {
                    Mouth::Ports(ports) => front_ports(ports),
                    Mouth::Open { .. } => Vec::new(),
                };
                (if wanted[1].is_some() { [Vec::new(), ports] } else { [ports, Vec::new()] }, false)
            }
            Enclosure::InfiniteBaffle
            | Enclosure::OpenBaffle(_)
            | Enclosure::Sealed(_)
            | Enclosure::Aperiodic(_)
            | Enclosure::PassiveRadiator(_)
            | Enclosure::FrontHorn(_)
            | Enclosure::TappedHorn(_) => ([Vec::new(), Vec::new()], false),
        };
        let radiators = self.enclosure.radiators().map(|cabinet| {
            let radiator = &cabinet.radiator;
            let cone = (4.0 * radiator.area / std::f64::consts::PI).sqrt();
            RadiatorSize { cone, count: radiator.count }
        });
        Some(Contents {
            drivers: self.driver_size(),
            wanted,
            ports,
            through,
            radiators,
            path,
            gain: self.gains,
        })
    }

    /// The way of a line or horn, with the place of its drivers.
    fn path(&self) -> Option<DuctPath> {
        let (profile, taps) = self.enclosure.path()?;
        let (seat, apart) = match self.enclosure.duct()? {
            Duct::Line(line) => {
                let stub = line.stub.map(|_| "side pipe");
                if line.chamber.is_some() && line.driver_at == 0.0 && self.volumes[0].is_some() {
                    (Seat::Chamber, stub.into_iter().collect())
                } else {
                    let chamber = line.chamber.map(|_| "chamber at the drivers");
                    (Seat::Along(line.driver_at), stub.into_iter().chain(chamber).collect())
                }
            }
            Duct::FrontHorn(horn) => {
                (Seat::Throat, horn.throat.map(|_| "throat chamber").into_iter().collect())
            }
            Duct::TappedHorn(_) => (Seat::Between(taps), Vec::new()),
        };
        let mut areas = Vec::with_capacity(profile.segments.len() * (STEPS + 1));
        let mut begins = 0.0;
        for segment in &profile.segments {
            areas.extend((0..=STEPS).map(|step| {
                let x = segment.length * step as f64 / STEPS as f64;
                [begins + x, segment.area_at(x)]
            }));
            begins += segment.length;
        }
        Some(DuctPath { areas, seat, apart })
    }

    /// How large its drivers are.
    pub fn driver_size(&self) -> DriverSize {
        let record = &self.driver.record;
        let measured = self.measured;
        let [cutout, depth] = [measured.cutout.or(record.cutout), measured.depth.or(record.depth)];
        let sizes = [record.size, cutout, depth, record.magnet];
        let size = DriverSize::of(self.driver.driver.sd, sizes, record.displacement);
        DriverSize {
            count: self.driver_array.wiring.count(),
            pair: self.arrangement.map(|arrangement| pair(arrangement, size.depth)),
            rim: record.rim.unwrap_or(size.rim),
            bolts: record.bolts,
            ..size
        }
    }

    /// Settles it with its box; see [`Built`].
    ///
    /// # Errors
    /// What only shows when ports and ways are worked out.
    pub fn built(&self) -> Result<Built, Problem> {
        match self.boxed() {
            Ok(built) => Ok(built),
            Err(Unsettled::Problem(problem)) => Err(problem),
            Err(Unsettled::Unbuildable(problem)) => {
                let compiled = self.compile()?;
                let design = self.as_built(&compiled, self.volumes);
                Ok(Built { design, compiled, boxed: None, unbuildable: Some(problem) })
            }
        }
    }

    /// The same without a look at its box: where sizes follow from the volumes, both sound the same.
    ///
    /// # Errors
    /// What only shows when ports and ways are worked out.
    pub fn unboxed(&self) -> Result<Built, Problem> {
        Ok(Built { design: self.clone(), compiled: self.compile()?, boxed: None, unbuildable: None })
    }

    fn boxed(&self) -> Result<Built, Unsettled> {
        let across = |builds: &[PortBuild]| builds.iter().any(|build| build.full_width);
        if !across(&self.body.ports) && !across(&self.body.front_ports) {
            return self.boxed_as_wide();
        }
        let mut now = self.clone();
        // As wide as the box would be without ports, to begin with.
        if let Some(contents) = self.contents_tuned(None, None)
            && let Ok(cabinet) = self.body.build(&contents)
        {
            for (front, index, width) in slots(&mut now.enclosure, &self.body) {
                *width = cabinet.across(&self.body, &contents, front, index).unwrap_or(*width);
            }
        }
        let mut before: Option<(Vec<f64>, Vec<f64>)> = None;
        for _ in 0..ROUNDS {
            let built = now.boxed_as_wide()?;
            let Some(Boxed { contents, cabinet }) = &built.boxed else { return Ok(built) };
            let (given, found): (Vec<f64>, Vec<f64>) = slots(&mut now.enclosure, &self.body)
                .map(|(front, index, width)| {
                    (*width, cabinet.across(&self.body, contents, front, index).unwrap_or(*width))
                })
                .unzip();
            if given.iter().zip(&found).all(|(given, found)| (given - found).abs() < SETTLED) {
                return Ok(built);
            }
            // The room hardly depends on the slot, so a secant is there in two or three steps.
            let next = (0..given.len()).map(|k| match &before {
                Some((last, answer)) if (given[k] - last[k] - found[k] + answer[k]).abs() > f64::EPSILON => {
                    let step = given[k] - last[k];
                    given[k] + (found[k] - given[k]) * step / (step - found[k] + answer[k])
                }
                _ => found[k],
            });
            for ((_, _, width), next) in slots(&mut now.enclosure, &self.body).zip(next) {
                *width = next;
            }
            before = Some((given, found));
        }
        Err(Problem::new("enclosure.ports", ProblemKind::Unbuildable { reason: UNSETTLED.to_owned() }).into())
    }

    fn boxed_as_wide(&self) -> Result<Built, Unsettled> {
        let wished = self.compile()?;
        let Some(contents) = self.contents(&wished) else {
            return Ok(Built { design: self.clone(), compiled: wished, boxed: None, unbuildable: None });
        };
        let (contents, compiled) = if contents.path.is_none() && self.body.sized() {
            self.settle(contents, wished)?
        } else {
            (contents, wished)
        };
        let cabinet = self.body.build(&contents).map_err(unbuildable)?;
        let net = |index: usize| cabinet.chambers.get(index).map(|chamber| chamber.ledger.net());
        let nets = [net(0), net(1)];
        if nets.iter().flatten().any(|volume| *volume <= 0.0) {
            return Err(full().into());
        }
        // The last chamber of a line or horn holds its path.
        let nets = match (&contents.path, contents.divided()) {
            (None, _) => nets,
            (Some(_), true) => [nets[0], self.volumes[1]],
            (Some(_), false) => self.volumes,
        };
        let design = self.as_built(&compiled, nets);
        let missed = |k: usize| {
            let wanted = contents.wanted[k].filter(|_| contents.path.is_none());
            wanted.zip(nets[k]).is_some_and(|(wanted, net)| (net - wanted).abs() > EXACT * wanted)
        };
        let (design, compiled) = match &cabinet.fold {
            Some(laid) => {
                let folded = design.folded(laid);
                let compiled = folded.compile()?;
                (folded, compiled)
            }
            // A box that does not come out at just what was wanted sounds as it came out.
            None if missed(0) || missed(1) => {
                let compiled = design.compile()?;
                (design, compiled)
            }
            None => (design, compiled),
        };
        let boxed = Boxed { contents, cabinet };
        let places = places(&compiled.network, &boxed);
        let (mut design, mut compiled) = (design, compiled);
        (design.places, compiled.network.places) = (places.clone(), places);
        Ok(Built { design, compiled, boxed: Some(boxed), unbuildable: None })
    }

    /// The same with its way as it was laid.
    fn folded(mut self, laid: &Laid) -> Self {
        let Some((wanted, taps)) = self.enclosure.path() else { return self };
        let path = laid_profile(wanted, laid);
        let rear = laid.spot(taps[0]);
        let moved = match self.enclosure {
            // Both sides of the drivers are at one place of the board between two channels.
            Enclosure::TappedHorn(_) => [rear.along, laid.across(&rear).map_or(taps[1], |front| front.along)],
            _ if taps[0] > 0.0 => [rear.along, taps[1]],
            _ => taps,
        };
        // A way that came out far too short ends before these places: there they keep their share of it.
        let reach = laid.length() / wanted.length();
        let ends = moved.iter().any(|at| *at >= laid.length());
        let turned = matches!(self.enclosure, Enclosure::TappedHorn(_)) && moved[1] <= moved[0];
        let moved = if ends || turned { taps.map(|at| at * reach) } else { moved };
        self.enclosure = self.enclosure.with_path(path, moved);
        self
    }

    /// What a box of stated sizes holds, with ports made as long as the tuning then needs: volume and lengths found together.
    fn settle(&self, contents: Contents, compiled: Compiled) -> Result<(Contents, Compiled), Unsettled> {
        let (mut now, mut contents, mut compiled) = (self.clone(), contents, compiled);
        // Larger boxes need shorter ports and leave more room: from above, the steps fall to the largest solution.
        let mut net = now.body.net(&without_ports(&contents)).map_err(unbuildable)?;
        for _ in 0..ROUNDS {
            if net.iter().flatten().any(|volume| *volume <= 0.0) {
                return Err(full().into());
            }
            now.volumes = net;
            now.enclosure = now.enclosure.with_volumes(apparent(net, self.gains));
            compiled = now.compile()?;
            let Some(next) = now.contents(&compiled) else { break };
            // What is wanted decides where a partition stands, so that stays.
            contents = Contents { wanted: contents.wanted, ..next };
            let left = now.body.net(&contents).map_err(unbuildable)?;
            let moved = (0..2).any(|k| left[k].zip(net[k]).is_some_and(|(a, b)| (a - b).abs() > 1e-9));
            net = left;
            if !moved {
                break;
            }
        }
        Ok((Contents { wanted: net, ..contents }, compiled))
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

/// The slots that are to be as wide as the box: whether before the drivers, which of them, and how wide, m.
fn slots<'a>(
    enclosure: &'a mut Enclosure,
    body: &'a Body,
) -> impl Iterator<Item = (bool, usize, &'a mut f64)> {
    [false, true].into_iter().zip(enclosure.ports_mut()).flat_map(move |(front, ports)| {
        ports.into_iter().flatten().enumerate().filter_map(move |(index, port)| match &mut port.section {
            CrossSection::Slot { width, .. } if body.port_build(front, index).full_width => {
                Some((front, index, width))
            }
            _ => None,
        })
    })
}

/// Where what sounds stands in space as it is mounted, by element; several of a kind stand in their middle.
fn places(network: &Network, Boxed { contents, cabinet }: &Boxed) -> Vec<(usize, [f64; 3])> {
    let middle = |wanted: &dyn Fn(&Part) -> bool| {
        let found: Vec<_> = cabinet
            .parts
            .iter()
            .filter(|part| part.face.is_some() && wanted(part))
            .filter_map(|part| cabinet.mouth(part, contents))
            .map(|mouth| mouth.outer)
            .collect();
        let mean = |k: usize| found.iter().map(|point| point[k]).sum::<f64>() / found.len() as f64;
        (!found.is_empty()).then(|| [mean(0), mean(1), mean(2)])
    };
    let outside = |element: usize, terminal: usize| {
        network.elements[element].terminals().get(terminal) == Some(&Node::Outside)
    };
    let mut places = Vec::new();
    let cone = network.cones.first().filter(|cone| outside(cone.element, 0));
    places
        .extend(cone.zip(middle(&|part| part.kind == PartKind::Driver)).map(|(cone, at)| (cone.element, at)));
    let mut ports: Vec<_> =
        cabinet.parts.iter().filter(|part| part.kind == PartKind::Port && part.face.is_some()).collect();
    ports.sort_by_key(|part| (part.chamber, part.index));
    ports.dedup_by_key(|part| (part.chamber, part.index));
    let mut ports = ports.into_iter();
    for opening in network.openings.iter().filter(|opening| outside(opening.element, opening.terminal)) {
        let at = match opening.kind {
            OpeningKind::Diaphragm => middle(&|part| part.kind == PartKind::Radiator),
            OpeningKind::Port if cabinet.fold.is_some() && contents.path.is_some() && ports.len() == 0 => {
                middle(&|part| part.kind == PartKind::Mouth)
            }
            OpeningKind::Port => ports.next().and_then(|port| {
                middle(&|part| {
                    (part.kind, part.chamber, part.index) == (PartKind::Port, port.chamber, port.index)
                })
            }),
            OpeningKind::Throat => None,
        };
        places.extend(at.map(|at| (opening.element, at)));
    }
    places
}

/// Places in each segment where the area of a way is read.
const STEPS: usize = 32;

/// A way as it was laid, filled where it was to be filled.
fn laid_profile(wanted: &Profile, laid: &Laid) -> Profile {
    let scale = wanted.length() / laid.length();
    let mut ends = Vec::with_capacity(wanted.segments.len());
    let mut end = 0.0;
    for segment in &wanted.segments {
        end += segment.length;
        ends.push(end);
    }
    let fill_at = |along: f64| {
        let index = ends.partition_point(|end| *end < along * scale).min(ends.len() - 1);
        wanted.segments[index].fill
    };
    let mut segments = Vec::new();
    for stretch in &laid.stretches {
        let to = stretch.from + stretch.length;
        let inside = ends.iter().map(|end| end / scale).filter(|at| *at > stretch.from && *at < to);
        let cuts: Vec<f64> = std::iter::once(stretch.from).chain(inside).chain([to]).collect();
        for pair in cuts.windows(2).filter(|pair| pair[1] - pair[0] > 1e-6) {
            let area = |at: f64| {
                let part = (at - stretch.from) / stretch.length;
                stretch.areas[0] + part * (stretch.areas[1] - stretch.areas[0])
            };
            let (start, end) = (area(pair[0]), area(pair[1]));
            let even = (start - end).abs() < 1e-9 * start;
            segments.push(Segment {
                // Boards are straight and the width stays, so the area grows evenly.
                flare: if even { Flare::Conical } else { Flare::Parabolic },
                length: pair[1] - pair[0],
                start,
                end: if even { start } else { end },
                width: Some(laid.plan.width),
                fill: fill_at(f64::midpoint(pair[0], pair[1])),
            });
        }
    }
    Profile { segments }
}

/// By how much of what was wanted a chamber may be off, as a share, before it is worked out anew.
const EXACT: f64 = 1e-7;

/// How near the width of a slot comes to its box, m, and what is said where that does not settle.
const SETTLED: f64 = 5e-7;
const UNSETTLED: &str = "a slot as wide as the box does not settle with the box's width; state either";

/// Most rounds of settling a box with its ports.
const ROUNDS: usize = 60;

fn apparent(net: [Option<f64>; 2], gains: [f64; 2]) -> [Option<f64>; 2] {
    [0, 1].map(|k| net[k].map(|net| net * gains[k]))
}

fn without_ports(contents: &Contents) -> Contents {
    Contents { ports: [Vec::new(), Vec::new()], ..contents.clone() }
}

fn full() -> Problem {
    let reason =
        "what goes into the box needs more room than there is; make it larger, or take something out"
            .to_owned();
    Problem::new("body", ProblemKind::Unbuildable { reason })
}

pub(crate) fn unbuildable(error: BuildError) -> Problem {
    let place = match error {
        BuildError::EnclosureShape(oak_cabinetry::geometry::EnclosureShapeError::TooLarge {
            what, ..
        }) => {
            format!("body.{what}")
        }
        _ => "body".to_owned(),
    };
    Problem::new(place, ProblemKind::Unbuildable { reason: error.to_string() })
}
