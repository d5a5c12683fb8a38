//! Numbering, assembly and solution of a network, one frequency at a time.

mod elimination;
mod sweep;

pub(crate) use sweep::{Sweep, Work};

use crate::Complex;
use crate::element::{Asking, At};
use crate::lanes::{Real, each};
use crate::network::{Network, Node};
use elimination::solve_in_place;

/// Working memory for one network; made once, used for every frequency, or for several at a time.
#[derive(Debug)]
pub struct Solver<'a, T: Asking = f64> {
    network: &'a Network,
    slots: Vec<Slot>,
    wiring: Wiring,
    admittance: Vec<Complex<T>>,
    /// Radiation resistance of each element, Pa s/m3.
    loads: Vec<T>,
    matrix: Vec<Complex<T>>,
    /// Pressure or voltage at each inside node, then the drive, then the zero of everything open or grounded, then what the
    /// others' sound sets against each face.
    across: Vec<Complex<T>>,
    /// What each face's pressure does to the inside nodes, `[faces * nodes]`.
    pushed: Vec<Complex<T>>,
    /// How far the faces stand apart, m, `[faces * faces]`; of a face that is several, one from the next.
    apart: Vec<f64>,
    /// Resistance that each face sets against the flow of each other, Pa s/m3, `[faces * faces]`.
    mutual: Vec<T>,
    /// The system of their flows, `[faces * faces]`, and those flows, m3/s RMS.
    coupled: Vec<Complex<T>>,
    flows: Vec<Complex<T>>,
    /// What leaves each sounding terminal at the last solution, m3/s RMS.
    sound: Vec<Complex<T>>,
    /// Angular frequency of the last solution, rad/s.
    omega: T,
}

/// Where an element's admittances and the places of its terminals stand.
#[derive(Debug, Clone, Copy)]
struct Slot {
    admittance: usize,
    places: usize,
    terminals: usize,
}

/// A terminal at the outside.
#[derive(Debug, Clone, Copy)]
struct Sounding {
    element: usize,
    terminal: usize,
    /// Extra way to the listener, m.
    extra_path: f64,
    spreads: bool,
    /// Whether the element's radiation resistance is for this terminal: its first at the outside.
    loaded: bool,
}

/// A terminal that sounds against the open air, and so against every other.
#[derive(Debug, Clone, Copy)]
struct Face {
    element: usize,
    terminal: usize,
    /// How many it is.
    count: u32,
}

/// What goes where, as positions in the solver's vectors: found once, followed at every frequency.
#[derive(Debug, Default)]
struct Wiring {
    /// An admittance and the matrix entry it adds to.
    stamps: Vec<(usize, usize)>,
    /// An admittance to the amplifier and the node it drives.
    drives: Vec<(usize, usize)>,
    /// Place in `across` of every terminal of every element.
    places: Vec<usize>,
    sounding: Vec<Sounding>,
    faces: Vec<Face>,
    /// An admittance to a face, and the place among what is pushed that it adds to.
    pushes: Vec<(usize, usize)>,
    /// Elements and terminals at the amplifier.
    supplied: Vec<(usize, usize)>,
}

impl Wiring {
    fn add(&mut self, slot: Slot, terminals: &[Node], network: &Network, element: usize) {
        let (drive, zero) = (network.nodes, network.nodes + 1);
        let count = network.elements[element].faces();
        let sounds = terminals.iter().position(|node| *node == Node::Outside);
        let face = sounds.filter(|_| count > 0).map(|terminal| {
            self.faces.push(Face { element, terminal, count });
            (terminal, self.faces.len() - 1)
        });
        self.places.extend(terminals.iter().enumerate().map(|(terminal, node)| match *node {
            Node::Inside(at) => at,
            Node::Amplifier => drive,
            Node::Outside | Node::Elsewhere | Node::Ground => match face {
                Some((sounding, face)) if sounding == terminal => zero + 1 + face,
                _ => zero,
            },
        }));
        for (row, from) in terminals.iter().enumerate() {
            match *from {
                Node::Outside => self.sounding.push(Sounding {
                    element,
                    terminal: row,
                    extra_path: extra_path(network, element, row),
                    spreads: network.elements[element].spreads(),
                    loaded: sounds == Some(row),
                }),
                Node::Amplifier => self.supplied.push((element, row)),
                Node::Elsewhere | Node::Ground => {}
                Node::Inside(from) => {
                    for column in 0..terminals.len() {
                        let admittance = slot.admittance + row * terminals.len() + column;
                        match self.places[slot.places + column] {
                            to if to == drive => self.drives.push((admittance, from)),
                            to if to == zero => {}
                            to if to > zero => {
                                self.pushes.push((admittance, (to - zero - 1) * network.nodes + from));
                            }
                            to => self.stamps.push((admittance, from * network.nodes + to)),
                        }
                    }
                }
            }
        }
    }
}

/// How far faces stand apart, m, `[n * n]`.
fn apart(network: &Network, faces: &[Face]) -> Vec<f64> {
    let place = |face: &Face| {
        let known = network.places.iter().find(|(element, _)| *element == face.element);
        known.map_or([0.0, 0.0, -extra_path(network, face.element, face.terminal)], |(_, place)| *place)
    };
    // The nearest that equal round ones can stand.
    let next = |face: &Face| {
        let same = |opening: &&crate::network::Opening| opening.element == face.element;
        let area = network.openings.iter().find(same).map_or(0.0, |opening| opening.area);
        2.0 * (area / f64::from(face.count) / std::f64::consts::PI).sqrt()
    };
    let distance = |a: &Face, b: &Face| {
        if a.element == b.element {
            return next(a);
        }
        let [a, b] = [place(a), place(b)];
        a.iter().zip(&b).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt()
    };
    faces.iter().flat_map(|a| faces.iter().map(move |b| distance(a, b))).collect()
}

fn extra_path(network: &Network, element: usize, terminal: usize) -> f64 {
    let same = |path: &&crate::network::Path| path.element == element && path.terminal == terminal;
    network.paths.iter().find(same).map_or(0.0, |path| path.distance)
}

impl<'a, T: Asking> Solver<'a, T> {
    /// Lays out the memory for a network.
    #[inline(always)]
    pub fn new(network: &'a Network) -> Self {
        let mut slots = Vec::with_capacity(network.elements.len());
        let mut wiring = Wiring::default();
        let mut next = Slot { admittance: 0, places: 0, terminals: 0 };
        for (index, element) in network.elements.iter().enumerate() {
            let terminals = element.terminals();
            let n = terminals.len();
            let slot = Slot { terminals: n, ..next };
            wiring.add(slot, terminals, network, index);
            slots.push(slot);
            next = Slot { admittance: slot.admittance + n * n, places: slot.places + n, terminals: 0 };
        }
        let zero = Complex::from(T::of(0.0));
        // A single face has nothing to sound against but the air.
        let lone = wiring.faces.len() < 2 && wiring.faces.iter().all(|face| face.count < 2);
        let faces = if lone { 0 } else { wiring.faces.len() };
        Self {
            network,
            loads: vec![zero.re; slots.len()],
            slots,
            sound: vec![zero; wiring.sounding.len()],
            admittance: vec![zero; next.admittance],
            matrix: vec![zero; network.nodes * network.nodes],
            across: vec![zero; network.nodes + 2 + wiring.faces.len()],
            pushed: vec![zero; faces * network.nodes],
            apart: apart(network, &wiring.faces[..faces]),
            mutual: vec![zero.re; faces * faces],
            coupled: vec![zero; faces * faces],
            flows: vec![zero; faces],
            wiring,
            omega: zero.re,
        }
    }

    /// Solves at a frequency (Hz) for a signal that the network's filters make the drive (V RMS before them); the results stay until the
    /// next call.
    #[inline(always)]
    pub fn solve(&mut self, frequency: T, volts: f64) {
        let mut drive = self.network.chain.transfer(angular(frequency)) * T::of(volts);
        drive.re += T::of(SILENT);
        self.assemble(frequency, drive);
        let nodes = self.network.nodes;
        solve_in_place(&mut self.matrix, &mut self.across[..nodes], &mut self.pushed);
        if !self.flows.is_empty() {
            self.couple();
        }
        for index in 0..self.sound.len() {
            let Sounding { element, terminal, .. } = self.wiring.sounding[index];
            self.sound[index] = self.outflow(element, terminal);
        }
    }

    /// Impedance that a node sets against a flow into it at a frequency (Hz), with nothing driven, Pa s/m3.
    #[inline(always)]
    pub fn input_impedance(&mut self, frequency: T, node: Node) -> Complex<T> {
        let Node::Inside(index) = node else { return Complex::from(T::of(0.0)) };
        self.assemble(frequency, T::of(0.0).into());
        self.across[index] = T::of(1.0).into();
        solve_in_place(&mut self.matrix, &mut self.across[..self.network.nodes], &mut []);
        self.across[index]
    }

    /// What flows out of an element's terminal: m3/s RMS, on the electrical side A RMS.
    #[inline(always)]
    pub fn outflow(&self, element: usize, terminal: usize) -> Complex<T> {
        let Slot { admittance, places, terminals } = self.slots[element];
        let row = &self.admittance[admittance + terminal * terminals..][..terminals];
        let places = &self.wiring.places[places..][..terminals];
        let zero = self.network.nodes + 1;
        let mut flow = Complex::from(T::of(0.0));
        for (y, &place) in row.iter().zip(places) {
            if place != zero {
                flow -= *y * self.across[place];
            }
        }
        flow
    }

    /// Pressure at a node, Pa RMS, on the electrical side V RMS.
    #[inline(always)]
    pub fn pressure(&self, node: Node) -> Complex<T> {
        match node {
            Node::Outside | Node::Elsewhere | Node::Ground => T::of(0.0).into(),
            Node::Inside(index) => self.across[index],
            Node::Amplifier => self.across[self.network.nodes],
        }
    }

    /// Pressure that the sound of the others sets against an element's terminal at the outside, Pa RMS.
    #[inline(always)]
    pub fn pressure_outside(&self, element: usize, terminal: usize) -> Complex<T> {
        self.across[self.wiring.places[self.slots[element].places + terminal]]
    }

    /// Radiation resistance of a small source in this space, whatever its size: `rho w^2/(Omega c)`, Pa s/m3.
    #[inline(always)]
    fn small_source(&self) -> T {
        let Network { air, space, .. } = self.network;
        self.omega * self.omega * T::of(air.density / (space.angle() * air.speed))
    }

    /// Everything that flows to the outside, m3/s RMS: cones, ports and leaks alike, each as loud as it spreads and
    /// delayed by its extra way to the listener.
    #[inline(always)]
    pub fn heard_outflow(&self) -> Complex<T> {
        let speed = self.network.air.speed;
        let mut sum = Complex::from(T::of(0.0));
        for which in 0..self.sound.len() {
            let mut flow = self.spread_flow(which);
            let extra_path = self.wiring.sounding[which].extra_path;
            if extra_path > 0.0 {
                flow *= each(self.omega, |omega| Complex::cis(-omega / speed * extra_path));
            }
            sum += flow;
        }
        sum
    }

    /// What sounds, as many as [`Self::spread_flow`] counts: its element and how much farther it has to the listener, m.
    pub fn sounding(&self) -> impl Iterator<Item = (usize, f64)> {
        self.wiring.sounding.iter().map(|sounding| (sounding.element, sounding.extra_path))
    }

    /// What leaves one of what sounds, m3/s RMS, as loud as it spreads, without its extra way.
    #[inline(always)]
    pub fn spread_flow(&self, which: usize) -> Complex<T> {
        let (sounding, mut flow) = (&self.wiring.sounding[which], self.sound[which]);
        if sounding.spreads && sounding.loaded {
            let spread = (self.loads[sounding.element] / self.small_source()).root();
            flow *= spread.map_lanes(|spread| if spread > 0.0 { spread } else { 1.0 });
        }
        flow
    }

    /// Pressure at 1 m in the space of the network, without the travel time: `j w rho U/(Omega r)`, Pa RMS.
    #[inline(always)]
    pub fn heard_pressure(&self) -> Complex<T> {
        let flow = self.heard_outflow() * (self.omega * T::of(self.network.source(1.0)));
        Complex::new(-flow.im, flow.re)
    }

    /// Current that the amplifier gives, A RMS.
    #[inline(always)]
    pub fn current(&self) -> Complex<T> {
        let mut current = Complex::from(T::of(0.0));
        for &(element, terminal) in &self.wiring.supplied {
            current -= self.outflow(element, terminal);
        }
        current
    }

    /// Power that leaves as sound, W: the form of the resistances that the faces set against their own flow and each other's.
    #[inline(always)]
    pub fn radiated(&self) -> T {
        let mut power = T::of(0.0);
        for face in &self.wiring.faces {
            power += self.loads[face.element] * self.outflow(face.element, face.terminal).norm_sqr();
        }
        let n = self.flows.len();
        for (one, row) in self.mutual.chunks_exact(n.max(1)).enumerate() {
            for (other, resistance) in row.iter().enumerate() {
                let (one, other) = (self.flows[one], self.flows[other]);
                power += *resistance * (one.re * other.re + one.im * other.im);
            }
        }
        power.or_larger(T::of(0.0))
    }

    /// Lets every face work against the sound of the others, which so far were solved as if each sounded alone: the pressure
    /// `p_i = sum of R_ij u_j` with `R_ij = sqrt(R_i R_j) sin(k d)/(k d)` (Pritchard 1960, J. Acoust. Soc. Am. 32, 730, for
    /// small pistons; from memory), never more together than the power that is there.
    #[inline(always)]
    fn couple(&mut self) {
        let (n, nodes) = (self.flows.len(), self.network.nodes);
        let number = self.omega * T::of(self.network.air.speed.recip());
        // Equal faces next to each other first sound together.
        for one in 0..n {
            let Face { element, count, .. } = self.wiring.faces[one];
            self.mutual[one * n + one] = if count > 1 {
                let together = sinc(number * T::of(self.apart[one * n + one])).or_larger(T::of(0.0));
                self.loads[element] * together * T::of(f64::from(count - 1))
            } else {
                T::of(0.0)
            };
        }
        for one in 0..n {
            let here = self.loads[self.wiring.faces[one].element] + self.mutual[one * n + one];
            for other in one + 1..n {
                let there = self.loads[self.wiring.faces[other].element] + self.mutual[other * n + other];
                let kd = number * T::of(self.apart[one * n + other]);
                let mutual = (here * there).root() * sinc(kd);
                self.mutual[one * n + other] = mutual;
                self.mutual[other * n + one] = mutual;
            }
        }
        // What a pressure of one at each face makes flow out of each: (1 - G R) u = u alone.
        for one in 0..n {
            let Face { element, terminal, .. } = self.wiring.faces[one];
            self.flows[one] = self.outflow(element, terminal);
            for column in 0..n {
                self.coupled[one * n + column] = T::of(if one == column { 1.0 } else { 0.0 }).into();
            }
            for other in 0..n {
                let flow = self.pushed_outflow(one, other, nodes);
                for column in 0..n {
                    self.coupled[one * n + column] -= flow * self.mutual[other * n + column];
                }
            }
        }
        solve_in_place(&mut self.coupled, &mut self.flows, &mut []);
        for one in 0..n {
            let mut pressure = Complex::from(T::of(0.0));
            for other in 0..n {
                pressure += self.flows[other] * self.mutual[one * n + other];
            }
            self.across[nodes + 2 + one] = pressure;
            for node in 0..nodes {
                self.across[node] += self.pushed[one * nodes + node] * pressure;
            }
        }
    }

    /// What flows out of one face for a pressure of 1 Pa at another, m3/s.
    #[inline(always)]
    fn pushed_outflow(&self, one: usize, other: usize, nodes: usize) -> Complex<T> {
        let Face { element, terminal, .. } = self.wiring.faces[one];
        let Slot { admittance, places, terminals } = self.slots[element];
        let row = &self.admittance[admittance + terminal * terminals..][..terminals];
        let mut flow = Complex::from(T::of(0.0));
        for (y, &place) in row.iter().zip(&self.wiring.places[places..][..terminals]) {
            if place < nodes {
                flow -= *y * self.pushed[other * nodes + place];
            } else if place == nodes + 2 + other {
                flow -= *y;
            }
        }
        flow
    }

    #[inline(always)]
    fn assemble(&mut self, frequency: T, drive: Complex<T>) {
        let Network { air, space, elements, nodes, .. } = self.network;
        self.omega = angular(frequency);
        let at = At { omega: self.omega, air, space: *space };
        let zero = Complex::from(T::of(0.0));
        self.matrix.fill(zero);
        self.across.fill(zero);
        self.across[*nodes] = drive;
        for ((element, slot), load) in elements.iter().zip(&self.slots).zip(&mut self.loads) {
            let n = slot.terminals;
            let admittance = &mut self.admittance[slot.admittance..slot.admittance + n * n];
            *load = T::admit(&**element, &at, admittance);
        }
        for &(admittance, entry) in &self.wiring.stamps {
            self.matrix[entry] += self.admittance[admittance];
        }
        if !self.pushed.is_empty() {
            self.pushed.fill(zero);
            for &(admittance, entry) in &self.wiring.pushes {
                self.pushed[entry] -= self.admittance[admittance];
            }
        }
        for &(admittance, node) in &self.wiring.drives {
            self.across[node] -= self.admittance[admittance] * drive;
        }
    }
}

/// Where filters take all of a signal there still is a load to be told, V.
const SILENT: f64 = 1e-90;

/// Angular frequency (rad/s) of a frequency (Hz).
#[inline(always)]
fn angular<T: Real>(frequency: T) -> T {
    frequency * T::of(std::f64::consts::TAU)
}

/// `sin(x)/x`; below 1 by its series, right to 1e-11.
#[inline(always)]
fn sinc<T: Real>(x: T) -> T {
    if x.largest() >= 1.0 {
        return x.map_lanes(|x| if x < 1e-4 { 1.0 } else { x.sin() / x });
    }
    let z = x * x;
    let one = T::of(1.0);
    let mut tail = one;
    let mut n = 10.0;
    while n > 0.0 {
        tail = one - z * T::of(1.0 / (n * (n + 1.0))) * tail;
        n -= 2.0;
    }
    tail
}
