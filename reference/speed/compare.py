#!/usr/bin/env python3
"""Times the program, vectorised NumPy and ngspice on the same circuits in one run, and prints the ratios.

Each is asked for 600 frequencies from 10 to 1000 Hz. The program's times are Criterion's, of computing all curves; NumPy's
are the best of several runs of a version that stamps nodal admittances for all frequencies at once and solves them in
one batch; ngspice's are its own "total analysis time", without start and parsing, over many analyses.

    cargo xtask speed
"""

import json
import math
import pathlib
import re
import subprocess
import tempfile
import time

import numpy as np

ROOT = pathlib.Path(__file__).parents[2]
NGSPICE = ROOT / "reference" / "ngspice"
TAU = 2 * math.pi
FREQUENCY = np.geomspace(10, 1000, 600)
OMEGA = TAU * FREQUENCY
CORRECTION = {"flanged": 8 / (3 * math.pi), "free": 0.613}
REPEATS = 200
GAMMA, PRESSURE, VISCOSITY, CONDUCTIVITY, HEAT = 1.4, 101325.0, 1.81e-5, 0.0257, 1006.0


class Nodes:
    """Admittances between nodes for all frequencies; "out" is the listener's side."""

    def __init__(self, names):
        self.index = {name: at for at, name in enumerate(names)}
        n = len(names)
        self.matrix = np.zeros((len(OMEGA), n, n), complex)
        self.drive = np.zeros((len(OMEGA), n), complex)

    def add(self, a, b, y):
        for one, other in ((a, b), (b, a)):
            if one in self.index:
                at = self.index[one]
                self.matrix[:, at, at] += y
                if other in self.index:
                    self.matrix[:, at, self.index[other]] -= y

    def source(self, node, flow):
        if node in self.index:
            self.drive[:, self.index[node]] += flow

    def solve(self):
        if self.matrix.shape[1] == 1:
            found = self.drive / self.matrix[:, 0]
        else:
            found = np.linalg.solve(self.matrix, self.drive[..., None])[..., 0]
        return lambda node: found[:, self.index[node]] if node in self.index else 0.0


def compliance(volume, air):
    return volume / (air["density"] * air["speed"] ** 2)


def chamber(nodes, node, box, reference, air, leaks):
    capacity = compliance(box["volume"], air)
    y = 1j * OMEGA * capacity
    if "qa" in box:
        y = y / (1 + y / (TAU * reference * capacity * box["qa"]))
    nodes.add(node, "ground", y)
    if "ql" in box:
        leak = TAU * reference * capacity / box["ql"]
        nodes.add(node, "out", leak)
        leaks.append((node, leak))


def vented(nodes, node, box, beyond, air, leaks, openings):
    masses = []
    for port in box["ports"]:
        radius = port["diameter"] / 2
        effective = port["length"] + radius * (CORRECTION[port["inner"]] + CORRECTION[port["outer"]])
        masses.append(air["density"] * effective / (math.pi * radius**2) / port["count"])
    reference = 1 / (TAU * math.sqrt(compliance(box["volume"], air) / sum(1 / mass for mass in masses)))
    chamber(nodes, node, box, reference, air, leaks)
    for mass in masses:
        y = 1 / (1j * OMEGA * mass)
        nodes.add(node, beyond, y)
        openings.append((node, beyond, y))


def radiated(nodes, node, box, radiator, air, leaks, openings):
    area = radiator["count"] * radiator["area"]
    stiffness = 1 / radiator["compliance"] + radiator["area"] * area / compliance(box["volume"], air)
    chamber(nodes, node, box, math.sqrt(stiffness / radiator["mass"]) / TAU, air, leaks)
    impedance = radiator["resistance"] + 1j * (OMEGA * radiator["mass"] - 1 / (OMEGA * radiator["compliance"]))
    y = radiator["area"] * area / impedance
    nodes.add(node, "out", y)
    openings.append((node, "out", y))


def cone(nodes, driver, front, rear, electrical, volts):
    """A driver with its electrical side eliminated; returns what its velocity follows from."""
    moving = driver["rms"] + 1j * (OMEGA * driver["mms"] - 1 / (OMEGA * driver["cms"]))
    mobility = 1 / (moving + driver["bl"] ** 2 / electrical)
    nodes.add(front, rear, driver["sd"] ** 2 * mobility)
    push = driver["sd"] * driver["bl"] * volts / electrical * mobility
    nodes.source(front, push)
    nodes.source(rear, -push)
    return mobility, push / driver["sd"]


def solve(case, air):
    """Pressure, impedance, velocities and group delay of one case."""
    family, volts = case["family"], case["volts"]
    front = "front" if family.startswith("bandpass") else "out"
    names = ["rear"] + (["front"] if front == "front" else []) + (["between"] if "isobaric" in case else [])
    nodes, leaks, openings = Nodes(names), [], []
    driver = case["driver"]
    blocked = driver["re"] + 1j * OMEGA * driver["le"]
    joined = driver
    if "isobaric" in case:
        joined = driver | {"mms": 2 * driver["mms"], "cms": driver["cms"] / 2}
        nodes.add("between", "ground", 1j * OMEGA * compliance(case["isobaric"]["volume"], air))
        if case["isobaric"]["coils"] == "series" or "series_resistance" in case:
            return None  # coils that share a current need a mesh; ngspice alone is timed there
        cones = [(front, "between"), ("between", "rear")]
    else:
        cones = [(front, "rear")]
    rear = case["rear"]
    moved = [cone(nodes, driver, a, b, blocked, volts) for a, b in cones]
    if "ports" in rear:
        vented(nodes, "rear", rear, "front" if family == "bandpass6-series" else "out", air, leaks, openings)
    elif "radiator" in case:
        radiated(nodes, "rear", rear, case["radiator"], air, leaks, openings)
    else:
        stiffness = 1 / joined["cms"] + joined["sd"] ** 2 / compliance(rear["volume"], air)
        chamber(nodes, "rear", rear, math.sqrt(stiffness / joined["mms"]) / TAU, air, leaks)
    if "vent_resistance" in case:
        nodes.add("rear", "out", 1 / case["vent_resistance"])
        leaks.append(("rear", 1 / case["vent_resistance"]))
    if front == "front":
        vented(nodes, "front", case["front"], "out", air, leaks, openings)
    pressure = nodes.solve()
    velocities = [
        driven - mobility * driver["sd"] * (pressure(a) - pressure(b))
        for (a, b), (mobility, driven) in zip(cones, moved)
    ]
    outflow = sum(y * pressure(node) for node, y in leaks)
    outflow = outflow + sum(y * pressure(a) for a, b, y in openings if b == "out")
    if front == "out":
        outflow = outflow + driver["sd"] * velocities[0]
    current = sum((volts - driver["bl"] * velocity) / blocked for velocity in velocities)
    heard = 1j * OMEGA * air["density"] * outflow / TAU
    delay = -np.gradient(np.unwrap(np.angle(heard)), OMEGA)
    level = 20 * np.log10(np.abs(heard) / 20e-6)
    travel = math.sqrt(2) * np.abs(velocities[0]) / OMEGA
    return level, volts / current, travel, delay, [y * (pressure(a) - pressure(b)) for a, b, y in openings]


def friction(radius, diffusivity):
    """Mean of the boundary layer, asymptotic: the same expansion that the program uses in a wide duct."""
    u = np.sqrt(-1j) / (radius * np.sqrt(OMEGA / diffusivity))
    ratio = 1 - u * (0.5 + u * (0.125 + u * (0.125 + u * (25 / 128 + u * 13 / 32))))
    return 2 * u * ratio


def line(air, slices=64):
    """A driver on a tapered line of 2.5 m with viscothermal losses."""
    driver = {"re": 3.4, "le": 0.0, "bl": 12.6, "mms": 0.118, "cms": 3.7e-4, "rms": 3.3, "sd": 0.0346}
    density = air["density"]
    roots = np.linspace(math.sqrt(0.05), math.sqrt(0.025), slices + 1)
    a, b, c, d = 1.0, 0.0, 0.0, 1.0
    step = 2.5 / slices
    for s1, s2 in zip(roots[:-1], roots[1:]):
        radius = math.sqrt(s1 * s2 / math.pi)
        viscous = friction(radius, VISCOSITY / density)
        thermal = friction(radius, CONDUCTIVITY / (density * HEAT))
        inertia = 1j * OMEGA * step * density / (1 - viscous)
        softness = 1j * OMEGA * step * (1 + (GAMMA - 1) * thermal) / (GAMMA * PRESSURE)
        x = np.sqrt(inertia * softness)
        cosh, sinhc = np.cosh(x), np.sinh(x) / x
        growth = s2 - s1
        e, f = (s2 * cosh - growth * sinhc) / s1, inertia * sinhc / (s1 * s2)
        g = softness * (s1 * s2 * sinhc + growth**2 * (cosh - sinhc) / x**2)
        h = (s1 * cosh + growth * sinhc) / s2
        a, b, c, d = a * e + b * g, a * f + b * h, c * e + d * g, c * f + d * h
    ka = OMEGA / air["speed"] * math.sqrt(0.025 / math.pi)
    mouth = density * air["speed"] / 0.025 * (ka**2 / 2 + 1j * 8 * ka / (3 * math.pi))
    behind = (a * mouth + b) / (c * mouth + d)
    electrical = driver["re"] + 1j * OMEGA * driver["le"]
    moving = driver["rms"] + 1j * (OMEGA * driver["mms"] - 1 / (OMEGA * driver["cms"]))
    total = moving + driver["bl"] ** 2 / electrical + driver["sd"] ** 2 * behind
    velocity = driver["bl"] / electrical * 20.0 / total
    outflow = driver["sd"] * velocity * (1 - 1 / (c * mouth + d))
    heard = 1j * OMEGA * density * outflow / TAU
    delay = -np.gradient(np.unwrap(np.angle(heard)), OMEGA)
    current = (20.0 - driver["bl"] * velocity) / electrical
    return 20 * np.log10(np.abs(heard) / 20e-6), 20.0 / current, np.abs(velocity) / OMEGA, delay


def best_of(work, runs=60):
    best = math.inf
    for _ in range(runs):
        begun = time.perf_counter()
        work()
        best = min(best, time.perf_counter() - begun)
    return best


def ngspice_time(name):
    netlist = (NGSPICE / f"{name}.cir").read_text()
    analysis = f"repeat {REPEATS}\nac dec 300 10 1000\ndestroy all\nend\nrusage\nquit 0"
    netlist = re.sub(r"set wr_singlescale.*?quit 0", analysis, netlist, flags=re.S)
    with tempfile.NamedTemporaryFile("w", suffix=".cir") as file:
        file.write(netlist)
        file.flush()
        done = subprocess.run(["ngspice", "-b", file.name], check=True, capture_output=True, text=True)
    total = float(re.findall(r"Total analysis time \(seconds\) = ([\d.]+)", done.stdout + done.stderr)[-1])
    return total / REPEATS


def criterion_times():
    command = ["cargo", "bench", "-q", "--workspace", "--profile", "dev", "--bench", "response"]
    command += ["--", "--quick", "--nresamples", "1000"]
    subprocess.run(command, check=True, cwd=ROOT, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    found = {}
    for estimates in (ROOT / "target" / "criterion").glob("*/new/estimates.json"):
        name = json.loads((estimates.parent / "benchmark.json").read_text())["full_id"]
        found[name] = json.loads(estimates.read_text())["mean"]["point_estimate"] * 1e-9
    return found


def row(name, ours, numpy_time, spice_time):
    def ratio(other):
        return "–" if other is None else f"{other * 1e6:.0f} µs, {other / ours:.0f} ×"

    print(f"| {name} | {ours * 1e6:.0f} µs | {ratio(numpy_time)} | {ratio(spice_time)} |")


def main():
    times = criterion_times()
    plan = json.loads((NGSPICE / "cases.json").read_text())
    print("| 600 points | Oak Drum | NumPy | ngspice |\n|---|---|---|---|")
    for case in plan["cases"]:
        name = case["name"]
        ours = times[f"circuit: {name}"]
        theirs = None if solve(case, plan["air"]) is None else best_of(lambda: solve(case, plan["air"]))
        row(name, ours, theirs, ngspice_time(name))
    row("tapered line, 64 slices", times["full: tapered line of 64 slices"], best_of(lambda: line(plan["air"])), None)
    for name in sorted(name for name in times if name.startswith("full: ")):
        row(f"{name}, losses and radiation", times[name], None, None)


main()
