//! Numbering, assembly and solution of a network, one frequency at a time.

mod elimination;

use crate::element::At;
use crate::network::{Network, Node};
use crate::{Complex, J};
use elimination::solve_in_place;

const ZERO: Complex = Complex::new(0.0, 0.0);

/// Working memory for one network; made once, used for every frequency.
#[derive(Debug)]
pub struct Solver<'a> {
    network: &'a Network,
    slots: Vec<Slot>,
    wiring: Wiring,
    admittance: Vec<Complex>,
    matrix: Vec<Complex>,
    /// Pressure or voltage at each inside node, then the drive, then the zero of everything open or grounded.
    across: Vec<Complex>,
    /// What leaves each sounding terminal at the last solution, m3/s RMS, and its radiation resistance, Pa s/m3.
    sound: Vec<(Complex, f64)>,
    /// Angular frequency of the last solution, rad/s.
    omega: f64,
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
    way: f64,
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
                    way: way(network, element, row),
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

fn way(network: &Network, element: usize, terminal: usize) -> f64 {
    let same = |path: &&crate::network::Path| path.element == element && path.terminal == terminal;
    network.paths.iter().find(same).map_or(0.0, |path| path.distance)
}

impl<'a> Solver<'a> {
    /// Lays out the memory for a network.
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
        Self {
            network,
            slots,
            sound: vec![(ZERO, 0.0); wiring.sounding.len()],
            wiring,
            admittance: vec![ZERO; next.admittance],
            matrix: vec![ZERO; network.nodes * network.nodes],
            across: vec![ZERO; network.nodes + 2],
            omega: 0.0,
        }
    }

    /// Solves at a frequency (Hz) for a drive (V RMS); the results stay until the next call.
    pub fn solve(&mut self, frequency: f64, volts: f64) {
        let Network { air, space, nodes, elements, .. } = self.network;
        self.omega = 2.0 * std::f64::consts::PI * frequency;
        let at = At { omega: self.omega, air, space: *space };
        self.assemble(&at, volts);
        solve_in_place(&mut self.matrix, &mut self.across[..*nodes]);
        for index in 0..self.sound.len() {
            let Sounding { element, terminal, loaded, .. } = self.wiring.sounding[index];
            let resistance = if loaded { elements[element].radiation(&at) } else { 0.0 };
            self.sound[index] = (self.outflow(element, terminal), resistance);
        }
    }

    /// Impedance that a node sets against a flow into it at a frequency (Hz), with nothing driven, Pa s/m3.
    pub fn input_impedance(&mut self, frequency: f64, node: Node) -> Complex {
        let Network { air, space, nodes, .. } = self.network;
        let Node::Inside(index) = node else { return ZERO };
        self.omega = 2.0 * std::f64::consts::PI * frequency;
        self.assemble(&At { omega: self.omega, air, space: *space }, 0.0);
        self.across[index] = Complex::new(1.0, 0.0);
        solve_in_place(&mut self.matrix, &mut self.across[..*nodes]);
        self.across[index]
    }

    /// What flows out of an element's terminal: m3/s RMS, on the electrical side A RMS.
    pub fn outflow(&self, element: usize, terminal: usize) -> Complex {
        let Slot { admittance, places, terminals } = self.slots[element];
        let row = &self.admittance[admittance + terminal * terminals..][..terminals];
        let places = &self.wiring.places[places..][..terminals];
        -row.iter().zip(places).map(|(y, place)| y * self.across[*place]).sum::<Complex>()
    }

    /// Pressure at a node, Pa RMS, on the electrical side V RMS.
    pub fn pressure(&self, node: Node) -> Complex {
        match node {
            Node::Outside | Node::Elsewhere | Node::Ground => ZERO,
            Node::Inside(index) => self.across[index],
            Node::Amplifier => self.across[self.network.nodes],
        }
    }

    /// Radiation resistance of a small source in this space, whatever its size: `rho w^2/(Omega c)`, Pa s/m3.
    fn small_source(&self) -> f64 {
        let Network { air, space, .. } = self.network;
        air.density * self.omega * self.omega / (space.angle() * air.speed)
    }

    /// Everything that flows to the outside, m3/s RMS: cones, ports and leaks alike, each as loud as it spreads and
    /// delayed by its extra way to the listener.
    pub fn heard_outflow(&self) -> Complex {
        let speed = self.network.air.speed;
        let heard = |(sounding, &(mut flow, resistance)): (&Sounding, &(Complex, f64))| {
            if sounding.spreads && resistance > 0.0 {
                flow *= (resistance / self.small_source()).sqrt();
            }
            if sounding.way > 0.0 {
                flow *= Complex::cis(-self.omega / speed * sounding.way);
            }
            flow
        };
        self.wiring.sounding.iter().zip(&self.sound).map(heard).sum()
    }

    /// Pressure at 1 m in the space of the network, without the travel time: `j w rho U/(Omega r)`, Pa RMS.
    pub fn heard_pressure(&self) -> Complex {
        let Network { air, space, .. } = self.network;
        J * (self.omega * air.density / space.angle()) * self.heard_outflow()
    }

    /// Current that the amplifier gives, A RMS.
    pub fn current(&self) -> Complex {
        -self
            .wiring
            .supplied
            .iter()
            .map(|&(element, terminal)| self.outflow(element, terminal))
            .sum::<Complex>()
    }

    /// Power that leaves as sound, W.
    ///
    /// Every opening works against its own radiation resistance; as long as they stand close together they
    /// also work against each other, all against `rho w^2/(Omega c)` of their sum.
    pub fn radiated(&self) -> f64 {
        let apart = !self.network.paths.is_empty();
        let together = if apart { 0.0 } else { self.small_source() };
        let mut power = 0.0;
        let mut sum = ZERO;
        for (_, (flow, resistance)) in
            self.wiring.sounding.iter().zip(&self.sound).filter(|(at, _)| at.loaded)
        {
            sum += flow;
            let own = if *resistance > 0.0 { resistance - together } else { 0.0 };
            power += own * flow.norm_sqr();
        }
        (power + together * sum.norm_sqr()).max(0.0)
    }

    fn assemble(&mut self, at: &At<'_>, volts: f64) {
        let drive = self.network.nodes;
        self.matrix.fill(ZERO);
        self.across.fill(ZERO);
        self.across[drive] = volts.into();
        for (element, slot) in self.network.elements.iter().zip(&self.slots) {
            let n = slot.terminals;
            element.admit(at, &mut self.admittance[slot.admittance..slot.admittance + n * n]);
        }
        for &(admittance, entry) in &self.wiring.stamps {
            self.matrix[entry] += self.admittance[admittance];
        }
        for &(admittance, node) in &self.wiring.drives {
            self.across[node] -= self.admittance[admittance] * volts;
        }
    }
}
