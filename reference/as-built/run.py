#!/usr/bin/env python3
"""A hundred designs worked out from what `oak-drum built` says of them alone, without the program's solver.

Every design is drawn at random around a woofer of the demo. The program exports it as it is built: cut port lengths, net volumes,
positions, folded profile. What follows here is only that, numpy and scipy: ducts with wall losses (Zwikker and Kosten 1949;
Stinson 1991, slit), baffled pistons (Rayleigh; Struve and Bessel functions), mutual radiation (Pritchard 1960), lumped chambers
with leaks and absorption (Small 1973), filled ducts (Allard and Champoux 1992; Panneton 2007), in a nodal matrix.

Kept beside this script: the designs, and for each its level at 1 m for 2.83 V in half space, its impedance and its tuning.

    cargo xtask reference
"""

import csv
import json
import os
import pathlib
import random
import subprocess
import tempfile

import numpy as np
from scipy.optimize import brentq
from scipy.special import ive, j1, struve

HERE = pathlib.Path(__file__).parent
ROOT = HERE.parent.parent
PROGRAM = pathlib.Path(os.environ.get("OAK_DRUM", ROOT / "target/debug/oak-drum"))
FREQUENCIES = np.geomspace(12, 450, 40)
DESIGNS = 100
FAMILIES = [
    "sealed",
    "ported",
    "ported",
    "ported",
    "passive_radiator",
    "passive_radiator",
    "bandpass4",
    "bandpass6_parallel",
    "bandpass6_series",
    "line",
]


def piston(ka):
    """Radiation impedance of a baffled piston over rho c/S."""
    x = 2 * ka
    return 1 - 2 * j1(x) / x + 1j * 2 * struve(1, x) / x


def pipe(ka):
    """Of an unflanged pipe (Silva et al. 2009)."""
    return ((1 - 0.457 * ka**2 + 1.393j * ka) - (1 + 0.167j * ka)) / ((1 - 0.457 * ka**2 + 1.393j * ka) + (1 + 0.167j * ka))


def wall(kind, reach, omega, air):
    """Density and compressibility of air beside walls: of a round duct by its radius, of a slit by half its height."""

    def mean(diffusivity):
        x = np.sqrt(1j * omega / diffusivity) * reach
        return np.tanh(x) / x if kind == "slot" else 2 * ive(1, x) / (x * ive(0, x))

    viscous = mean(air["viscosity"] / air["density"])
    thermal = mean(air["conductivity"] / (air["density"] * air["specific_heat"]))
    density = air["density"] / (1 - viscous)
    compressibility = (1 + (air["gamma"] - 1) * thermal) / (air["gamma"] * air["pressure"])
    return density, compressibility


def fill(resistivity, bulk, lining, rigid, omega, air):
    """Density and compressibility of fibrous fill (Allard and Champoux 1992; limp frame by Panneton 2007), beside air where it only lines walls."""
    x = air["density"] * omega / (2 * np.pi * resistivity)
    still = air["density"] + air["density"] / 1.2 * np.sqrt(-0.0364 / x**2 - 0.1144j / x)
    heat = np.sqrt(-2.82 / x**2 - 24.9j / x)
    modulus = air["pressure"] * (29.64 + heat) / (21.17 + heat)
    if not rigid:
        total = bulk + (1 - bulk / 1380.0) * air["density"]
        still = (still * total - air["density"] ** 2) / (still + total - 2 * air["density"])
    if not lining:
        return still, 1 / modulus
    share, depth = lining
    kt = omega * np.sqrt(still / modulus) * depth
    reached = share * np.tan(kt) / kt
    density = 1 / (reached / still + (1 - share) / air["density"])
    return density, reached / modulus + (1 - share) / (air["gamma"] * air["pressure"])


def duct(length, area, density, compressibility, omega):
    """Chain matrix of a uniform duct."""
    k = omega * np.sqrt(density * compressibility)
    z = np.sqrt(density / compressibility) / area
    return np.array([[np.cos(k * length), 1j * z * np.sin(k * length)], [1j * np.sin(k * length) / z, np.cos(k * length)]])


def chain(a, b):
    return np.einsum("ijf,jkf->ikf", a, b)


def series(z):
    return np.array([[np.ones_like(z), z], [np.zeros_like(z), np.ones_like(z)]])


def admittance(m):
    """Of a two-port with chain matrix m: flows into it at both ends."""
    a, b, d = m[0, 0], m[0, 1], m[1, 1]
    return np.array([[d / b, -1 / b], [-1 / b, a / b]])


class Network:
    """Nodes of pressure, outside faces that sound against each other, and what is heard."""

    def __init__(self, omega, air):
        self.omega, self.air = omega, air
        self.k = omega / air["speed"]
        self.nodes, self.faces, self.heard = 0, [], []
        self.two, self.one = [], []

    def node(self):
        self.nodes += 1
        return self.nodes - 1

    def face(self, resistance, at, path=0.0, spreads=False):
        self.faces.append((resistance, at, path, spreads))
        return -len(self.faces)

    def add(self, a, b, y):
        self.two.append((a, b, y))

    def shunt(self, node, y):
        self.one.append((node, y))

    def solve(self, cone, volts, air):
        """Pressure heard at 1 m, and the current."""
        n, m, f = self.nodes, len(self.faces), len(self.omega)
        size = n + m
        index = lambda node: node if node >= 0 else n - node - 1
        y = np.zeros((f, size, size), complex)
        source = np.zeros((f, size), complex)
        for a, b, block in self.two:
            for i, p in enumerate((a, b)):
                for j, q in enumerate((a, b)):
                    y[:, index(p), index(q)] += block[i, j]
        for node, block in self.one:
            y[:, index(node), index(node)] += block
        front, rear, sd, mobility, push, blocked, bl = cone
        for i, p in enumerate((front, rear)):
            for j, q in enumerate((front, rear)):
                y[:, index(p), index(q)] += sd * sd * mobility * (1 if i == j else -1)
        source[:, index(front)] += sd * mobility * push * volts
        source[:, index(rear)] -= sd * mobility * push * volts
        # Outside, the pressure is what the others' flows make of it: p = R U, with U = what flows out = -(y p - source).
        mutual = np.zeros((f, m, m))
        for i, (ri, pi, _, _) in enumerate(self.faces):
            for j, (rj, pj, _, _) in enumerate(self.faces):
                if i != j:
                    far = self.k * np.linalg.norm(np.subtract(pi, pj))
                    mutual[:, i, j] = np.sqrt(ri * rj) * np.sinc(far / np.pi)
        matrix, right = y.copy(), source.copy()
        for i in range(m):
            matrix[:, n + i, :] = np.einsum("fj,fjk->fk", mutual[:, i], y[:, n:, :])
            matrix[:, n + i, n + i] += 1
            right[:, n + i] = np.einsum("fj,fj->f", mutual[:, i], source[:, n:])
        pressure = np.linalg.solve(matrix, right[..., None])[..., 0]
        flows = source[:, n:] - np.einsum("fij,fj->fi", y[:, n:, :], pressure)
        small = air["density"] * self.omega**2 / (2 * np.pi * air["speed"])
        total = sum(leak * pressure[:, node] for node, leak in self.heard)
        for i, (r, _, path, spreads) in enumerate(self.faces):
            flow = flows[:, i] * np.exp(-1j * self.k * path)
            total = total + flow * (np.sqrt(r / small) if spreads else 1)
        speed = mobility * (push * volts - sd * (pressure[:, index(front)] - pressure[:, index(rear)]))
        current = (volts - bl * speed) / blocked
        return 1j * self.omega * air["density"] * total / (2 * np.pi), current


def coil(d, omega):
    if d["power_law"]:
        k, n = d["power_law"]
        return k * (1j * omega) ** n
    second = 1j * omega * d["l2"]
    return 1j * omega * d["le"] + (second * d["r2"] / (second + d["r2"]) if d["l2"] else 0)


def port_chain(port, omega, air):
    """Chain matrix of one port with its inner end, its area, and what it meets outside."""
    a, b = port["sides"]
    area = {"round": np.pi * a * a / 4, "slot": a * b, "corner": a * a / 2}[port["section"]]
    reach = {"round": a / 2, "slot": a * b / (2 * (a + b)), "corner": a / (2 + 2**0.5)}[port["section"]]
    radius = (area / np.pi) ** 0.5
    rho = air["density"]
    inner = series(1j * omega * rho * port["ends"][0] * radius / area)
    m = chain(inner, duct(port["length"], area, *wall(port["section"], reach, omega, air), omega))
    if port["inside"]:
        outer = 1j * omega * rho * port["ends"][1] * radius / area
    else:
        ka = omega / air["speed"] * radius
        outer = rho * air["speed"] / area * (piston(ka) if port["flanged"] else pipe(ka))
    return m, outer


def feed(built, omega):
    """Amplifier, cable and passive parts as a chain matrix from the amplifier's EMF to the coil."""
    source = built["source"]
    m = series(np.full_like(omega, source["output_resistance"] + built["series_resistance"], dtype=complex))
    for part in source["parts"]:
        y = sum(1 / (r + 1j * omega * l + (1 / (1j * omega * c) if c else 0)) for r, l, c in part["branches"])
        if part["in_series"]:
            m = chain(m, series(1 / y))
        else:
            one, zero = np.ones_like(y), np.zeros_like(y)
            m = chain(m, np.array([[one, zero], [y, one]]))
    return m


def solved(built, frequencies):
    """Level (dB) and impedance (ohm) at frequencies, and the box's tuning (Hz)."""
    air, d = built["air"], built["driver"]
    omega = 2 * np.pi * frequencies
    rho, c = air["density"], air["speed"]
    net = Network(omega, air)
    rear = net.node()
    rooms = [rear]
    bandpass = len(built["chambers"]) > 1
    if bandpass:
        rooms.append(net.node())
    for room, chamber in zip(rooms, built["chambers"]):
        compliance = chamber["apparent"] / (rho * c * c)
        at = 2 * np.pi * chamber["referred_to"]
        absorbing = 1 / (at * compliance * chamber["qa"]) if chamber["qa"] else 0
        net.shunt(room, 1j * omega * compliance / (1 + 1j * omega * compliance * absorbing))
        if chamber["ql"]:
            leak = at * compliance / chamber["ql"]
            net.shunt(room, leak * np.ones_like(omega))
            net.heard.append((room, leak))
    mechanical = d["rms"] + 1j * (omega * d["mms"] - 1 / (omega * d["cms"]))
    if bandpass:
        front = rooms[1]
    else:
        load = rho * c / d["sd"] * piston(omega / c * (d["sd"] / np.pi) ** 0.5).real
        mechanical = mechanical + load * d["sd"] ** 2
        front = net.face(load, built["cone_at"] or [0, 0, 0])
    # What the coil sees of all that stands before it (Thevenin).
    fed = feed(built, omega)
    volts, behind = built["volts"] / fed[0, 0], fed[0, 1] / fed[0, 0]
    blocked = d["re"] + coil(d, omega) + behind
    mobility = 1 / (mechanical + d["bl"] ** 2 / blocked)
    cone = (front, rear, d["sd"], mobility, d["bl"] / blocked, blocked, d["bl"])
    for port in built["ports"]:
        m, outer = port_chain(port, omega, air)
        y = admittance(chain(m, series(outer))) * port["count"]
        if port["inside"]:
            net.add(rooms[port["chamber"]], rooms[1], y)
        else:
            net.add(rooms[port["chamber"]], net.face(outer.real / port["count"], port["at"], port["path"]), y)
    if built["radiator"]:
        r = built["radiator"]
        load = rho * c / r["area"] * piston(omega / c * (r["area"] / np.pi) ** 0.5).real
        z = r["resistance"] + load * r["area"] ** 2 + 1j * (omega * r["mass"] - 1 / (omega * r["compliance"]))
        y = r["count"] * r["area"] ** 2 / z
        net.add(rear, net.face(load, r["at"]), np.array([[y, -y], [-y, y]]))
    if built["passage"]:
        line(net, rear, built["passage"], omega, air)
    pressure, current = net.solve(cone, volts, air)
    level = 20 * np.log10(abs(pressure) / 20e-6)
    # From the coil back to the amplifier, less what is the amplifier's own.
    across = volts - current * behind
    load = built["volts"] / (fed[1, 0] * across + fed[1, 1] * current) - built["source"]["output_resistance"]
    return level, abs(load), tunings(built)


def line(net, node, passage, omega, air):
    """A line in slices of one area each, closed where it begins."""
    at, slices = 0.0, []
    for stretch in passage["stretches"]:
        count = 64
        x = (np.arange(count) + 0.5) / count
        areas = np.interp(x, np.linspace(0, 1, len(stretch["areas"])), stretch["areas"])
        for area in areas:
            slices.append((at, stretch["length"] / count, area, stretch))
            at += stretch["length"] / count
    length = at

    def part(begin, end):
        m = series(np.zeros_like(omega, dtype=complex))
        for start, long, area, stretch in slices:
            lo, hi = max(start, begin), min(start + long, end)
            if hi - lo > 1e-12:
                if stretch["fill"]:
                    medium = fill(*stretch["fill"], stretch["lining"], stretch["rigid"], omega, air)
                elif stretch["width"]:
                    w, h = stretch["width"], area / stretch["width"]
                    medium = wall("slot", w * h / (2 * (w + h)), omega, air)
                else:
                    medium = wall("round", (area / np.pi) ** 0.5, omega, air)
                m = chain(m, duct(hi - lo, area, *medium, omega))
        return m

    place = passage["driver_at"]
    if place > 0:
        # Closed where it begins: there nothing flows, `0 = C p + D u`.
        m = part(0, place)
        net.shunt(node, m[1, 0] / m[1, 1])
    m = part(place, length)
    area = slices[-1][2]
    ends = passage["stretches"][-1]["areas"][-1]
    ka = omega / air["speed"] * (ends / np.pi) ** 0.5
    outer = air["density"] * air["speed"] / ends * (piston(ka) if passage["flanged"] else pipe(ka))
    face = net.face(outer.real, passage["at"] or [0, 0, -passage["path"]], passage["path"], spreads=True)
    net.add(node, face, admittance(chain(m, series(outer))))


def tunings(built):
    """Where chamber and ports are in balance, chamber by chamber: Hz."""
    air = built["air"]
    found = []
    for index, chamber in enumerate(built["chambers"]):
        ports = [port for port in built["ports"] if port["chamber"] == index]
        if not ports:
            continue

        def balance(f):
            omega = np.array([2 * np.pi * f])
            total = 1j * omega * chamber["apparent"] / (air["density"] * air["speed"] ** 2)
            for port in ports:
                m, outer = port_chain(port, omega, air)
                total = total + port["count"] * admittance(chain(m, series(outer)))[0, 0]
            return float(f * total.imag[0])

        grid = np.geomspace(5, 400, 800)
        values = [balance(f) for f in grid]
        crossing = next(k for k in range(len(grid) - 1) if values[k] < 0 <= values[k + 1])
        found.append(brentq(balance, grid[crossing], grid[crossing + 1]))
    return found


def drivers():
    found = {}
    for file in sorted((ROOT / "demo/builds").glob("*.json")):
        for variant in json.loads(file.read_text())["variants"]:
            found[variant["driver"]["name"]] = variant["driver"]
    return [found[name] for name in sorted(found)]


def any_signal(pick):
    """An amplifier with a resistance, a coil, and what stands across or in series."""
    ohm = lambda low, high: f"{pick.uniform(low, high):.2f} ohm"
    coil = {"wiring": "series", "inductance": f"{pick.uniform(2, 15):.1f} mH", "coil_resistance": ohm(0.2, 1)}
    across = {"wiring": "across", "resistance": ohm(4, 12), "capacitance": f"{pick.uniform(50, 400):.0f} uF"}
    trap = {"wiring": "trap", "inductance": f"{pick.uniform(2, 9):.1f} mH", "coil_resistance": ohm(0.2, 1), "capacitance": f"{pick.uniform(100, 900):.0f} uF", "resistance": ohm(5, 20)}
    parts = pick.sample([coil, across, trap, {"wiring": "series", "resistance": ohm(0.5, 3)}], pick.randint(1, 3))
    return {"amplifier": {"output_resistance": ohm(0, 1)}, "parts": parts}


def any_design(pick, number, woofers):
    """A design around one of the woofers; it may turn out not to be buildable."""
    driver = pick.choice(woofers)
    size = float(driver["size"].split()[0]) / 25.4 if "mm" in driver["size"] else float(driver["size"].split()[0])
    litres = 0.35 * size**2 * pick.uniform(0.6, 1.8)
    family = FAMILIES[number % len(FAMILIES)]
    losses = {"ql": round(pick.uniform(5, 20), 1), "qa": round(pick.uniform(20, 100))}

    def port(scale):
        across = round(pick.uniform(0.25, 0.5) * size * 25.4 * scale)
        kind = pick.choice(["round", "round", "slot", "corner"])
        if kind == "round":
            return {"shape": "round", "diameter": f"{across} mm"}
        if kind == "corner":
            return {"shape": "corner", "side": f"{across} mm"}
        return {"shape": "slot", "width": f"{round(across * 1.6)} mm", "height": f"{round(across * 0.4)} mm", "inner_end": pick.choice(["one_wall", "two_walls"])}

    enclosure = {"family": family, "volume": f"{litres:.1f} l", **losses}
    if family in ("ported", "bandpass6_parallel", "bandpass6_series"):
        enclosure |= {"tuning": f"{pick.uniform(28, 45):.1f} Hz", "ports": [port(0.9)]}
    if family.startswith("bandpass"):
        enclosure["front"] = {"volume": f"{litres * pick.uniform(0.5, 1.2):.1f} l", "tuning": f"{pick.uniform(50, 80):.1f} Hz", "ports": [port(1.0)], **losses}
    if family == "passive_radiator":
        area = 0.6 * np.pi / 4 * (size * 2.54) ** 2
        enclosure["radiator"] = {"area": f"{area:.0f} cm2", "mass": f"{area * pick.uniform(0.3, 0.8):.0f} g", "compliance": f"{pick.uniform(0.3, 1.0):.2f} mm/N"}
    if family == "line":
        length = pick.uniform(1.6, 2.6)
        area = 0.62 * np.pi / 4 * (size * 2.54) ** 2
        filled = {"fill_density": f"{pick.randint(12, 20)} kg/m3"} if pick.random() < 0.6 else {}
        if filled and pick.random() < 0.5:
            filled["fill_share"] = f"{pick.randint(20, 80)} %"
        enclosure = {
            "family": "line",
            "passage": {
                "segments": [
                    {"flare": "conical", "length": f"{length * 0.4:.3f} m", "start": f"{area * 1.5:.0f} cm2", "end": f"{area * 1.2:.0f} cm2", **filled},
                    {"flare": "conical", "length": f"{length * 0.6:.3f} m", "end": f"{area * pick.uniform(0.7, 1.1):.0f} cm2"},
                ],
                "driver_at": f"{length * pick.uniform(0.15, 0.3):.3f} m",
            },
        }
    body = {}
    if family != "line":
        if pick.random() < 0.5:
            body["braces"] = [{"along": pick.choice(["width", "height", "depth"])}]
        if pick.random() < 0.4:
            body["strips"] = f"{pick.randint(12, 25)} mm"
        if pick.random() < 0.4:
            body["thickness"] = f"{pick.choice([15, 18, 22, 25])} mm"
        shape = pick.choice(["box", "box", "box", "wedge", "prism", "rounded"])
        if shape != "box" and not family.startswith("bandpass"):
            body["shape"] = shape
            body |= {"wedge": {"top_depth": f"{round(size * 20)} mm"}, "rounded": {"radius": "30 mm"}}.get(shape, {})
    design = {"format": "oak-drum/design", "version": 2, "name": f"{number:03} {family}", "driver": driver, "enclosure": enclosure, "body": body}
    # Every seventh behind passive parts, drawn apart from the rest.
    return design | {"signal": any_signal(random.Random(number))} if number % 7 == 0 else design


def exported(design):
    with tempfile.NamedTemporaryFile("w", suffix=".json") as file:
        json.dump(design, file)
        file.flush()
        answer = subprocess.run([PROGRAM, "built", file.name, "--conditions", "bench"], capture_output=True, text=True)
    return json.loads(answer.stdout) if answer.returncode == 0 else None


def main():
    pick, woofers = random.Random(13), drivers()
    designs, curves, figures = [], [], []
    while len(designs) < DESIGNS:
        design = any_design(pick, len(designs) + 1, woofers)
        built = exported(design)
        if built is None or built["forbids"]:
            continue
        level, impedance, tuned = solved(built, FREQUENCIES)
        designs.append(design)
        for f, l, z in zip(FREQUENCIES, level, impedance):
            curves.append([len(designs), f"{f:.6f}", f"{l:.4f}", f"{z:.5f}"])
        figures.append([len(designs), *(f"{t:.4f}" for t in tuned)])
    (HERE / "designs.json").write_text(json.dumps(designs, separators=(",", ":")) + "\n")
    with open(HERE / "curves.csv", "w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["design", "frequency_hz", "level_db", "impedance_ohm"])
        writer.writerows(curves)
    with open(HERE / "tunings.csv", "w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["design", "behind_hz", "before_hz"])
        writer.writerows(figure + [""] * (3 - len(figure)) for figure in figures)
    print(f"{len(designs)} designs")


if __name__ == "__main__":
    main()
