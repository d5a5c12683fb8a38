//! Numbering, assembly and solution of a network, one frequency at a time.

mod elimination;
mod sweep;

pub(crate) use sweep::{Sweep, Work};

use crate::Complex;
use crate::element::At;
use crate::lanes::{Real, each};
use crate::network::{Network, Node};
use elimination::solve_in_place;

/// Working memory for one network; made once, used for every frequency, or for several at a time.
#[derive(Debug)]
pub struct Solver<'a, T: Real = f64> {
    network: &'a Network,
    slots: Vec<Slot>,
    wiring: Wiring,
    admittance: Vec<Complex<T>>,
    /// Radiation resistance of each element, Pa s/m3.
    loads: Vec<T>,
    matrix: Vec<Complex<T>>,
    /// Pressure or voltage at each inside node, then the drive, then the zero of everything open or grounded.
    across: Vec<Complex<T>>,
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
    /// Elements and terminals at the amplifier.
    supplied: Vec<(usize, usize)>,
}

impl Wiring {
    fn add(&mut self, slot: Slot, terminals: &[Node], network: &Network, element: usize) {
        let (drive, zero) = (network.nodes, network.nodes + 1);
        self.places.extend(terminals.iter().map(|node| match *node {
            Node::Inside(at) => at,
            Node::Amplifier => drive,
            Node::Outside | Node::Elsewhere | Node::Ground => zero,
        }));
        for (row, from) in terminals.iter().enumerate() {
            match *from {
                Node::Outside => self.sounding.push(Sounding {
                    element,
                    terminal: row,
                    extra_path: extra_path(network, element, row),
                    spreads: network.elements[element].spreads(),
                    loaded: terminals.iter().position(|node| *node == Node::Outside) == Some(row),
                }),
                Node::Amplifier => self.supplied.push((element, row)),
                Node::Elsewhere | Node::Ground => {}
                Node::Inside(from) => {
                    for column in 0..terminals.len() {
                        let admittance = slot.admittance + row * terminals.len() + column;
                        match self.places[slot.places + column] {
                            to if to == drive => self.drives.push((admittance, from)),
                            to if to == zero => {}
                            to => self.stamps.push((admittance, from * network.nodes + to)),
                        }
                    }
                }
            }
        }
    }
}

fn extra_path(network: &Network, element: usize, terminal: usize) -> f64 {
    let same = |path: &&crate::network::Path| path.element == element && path.terminal == terminal;
    network.paths.iter().find(same).map_or(0.0, |path| path.distance)
}

impl<'a, T: Real> Solver<'a, T> {
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
        Self {
            network,
            loads: vec![zero.re; slots.len()],
            slots,
            sound: vec![zero; wiring.sounding.len()],
            wiring,
            admittance: vec![zero; next.admittance],
            matrix: vec![zero; network.nodes * network.nodes],
            across: vec![zero; network.nodes + 2],
            omega: zero.re,
        }
    }

    /// Solves at a frequency (Hz) for a drive (V RMS); the results stay until the next call.
    #[inline(always)]
    pub fn solve(&mut self, frequency: T, volts: f64) {
        self.assemble(frequency, volts);
        solve_in_place(&mut self.matrix, &mut self.across[..self.network.nodes]);
        for index in 0..self.sound.len() {
            let Sounding { element, terminal, .. } = self.wiring.sounding[index];
            self.sound[index] = self.outflow(element, terminal);
        }
    }

    /// Impedance that a node sets against a flow into it at a frequency (Hz), with nothing driven, Pa s/m3.
    #[inline(always)]
    pub fn input_impedance(&mut self, frequency: T, node: Node) -> Complex<T> {
        let Node::Inside(index) = node else { return Complex::from(T::of(0.0)) };
        self.assemble(frequency, 0.0);
        self.across[index] = T::of(1.0).into();
        solve_in_place(&mut self.matrix, &mut self.across[..self.network.nodes]);
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
        for (sounding, flow) in self.wiring.sounding.iter().zip(&self.sound) {
            let mut flow = *flow;
            if sounding.spreads && sounding.loaded {
                let spread = (self.loads[sounding.element] / self.small_source()).root();
                flow *= spread.map_lanes(|spread| if spread > 0.0 { spread } else { 1.0 });
            }
            if sounding.extra_path > 0.0 {
                flow *= each(self.omega, |omega| Complex::cis(-omega / speed * sounding.extra_path));
            }
            sum += flow;
        }
        sum
    }

    /// Pressure at 1 m in the space of the network, without the travel time: `j w rho U/(Omega r)`, Pa RMS.
    #[inline(always)]
    pub fn heard_pressure(&self) -> Complex<T> {
        let Network { air, space, .. } = self.network;
        let flow = self.heard_outflow() * (self.omega * T::of(air.density / space.angle()));
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

    /// Power that leaves as sound, W.
    ///
    /// Every opening works against its own radiation resistance; as long as they stand close together they
    /// also work against each other, all against `rho w^2/(Omega c)` of their sum.
    #[inline(always)]
    pub fn radiated(&self) -> T {
        let apart = !self.network.paths.is_empty();
        let zero = T::of(0.0);
        let together = if apart { zero } else { self.small_source() };
        let mut power = zero;
        let mut sum = Complex::from(zero);
        for (sounding, flow) in self.wiring.sounding.iter().zip(&self.sound).filter(|(at, _)| at.loaded) {
            sum += *flow;
            let load = self.loads[sounding.element];
            if load.largest() > 0.0 {
                power += (load - together) * flow.norm_sqr();
            }
        }
        (power + together * sum.norm_sqr()).or_larger(zero)
    }

    #[inline(always)]
    fn assemble(&mut self, frequency: T, volts: f64) {
        let Network { air, space, elements, nodes, .. } = self.network;
        self.omega = frequency * T::of(2.0 * std::f64::consts::PI);
        let at = At { omega: self.omega, air, space: *space };
        let zero = Complex::from(T::of(0.0));
        self.matrix.fill(zero);
        self.across.fill(zero);
        self.across[*nodes] = T::of(volts).into();
        for ((element, slot), load) in elements.iter().zip(&self.slots).zip(&mut self.loads) {
            let n = slot.terminals;
            let admittance = &mut self.admittance[slot.admittance..slot.admittance + n * n];
            *load = T::admit(&**element, &at, admittance);
        }
        for &(admittance, entry) in &self.wiring.stamps {
            self.matrix[entry] += self.admittance[admittance];
        }
        let volts = T::of(volts);
        for &(admittance, node) in &self.wiring.drives {
            self.across[node] -= self.admittance[admittance] * volts;
        }
    }
}
