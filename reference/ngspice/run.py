#!/usr/bin/env python3
"""Solves the circuits of cases.json with ngspice (Debian's package) and keeps netlists and results.

Impedance analogy throughout: the coil as an electrical mesh, the cone as a mechanical mesh (force is
voltage, velocity is current), the air as an acoustic mesh (pressure is voltage, volume velocity is
current), joined by controlled sources. Written from the circuits of Small 1972 to 1974, not from the program's code.

    python3 reference/ngspice/run.py
"""

import cmath
import csv
import json
import math
import pathlib
import subprocess
import tempfile

HERE = pathlib.Path(__file__).parent
POINTS_PER_DECADE = 100
# End corrections in radii: Rayleigh 1896; Levine and Schwinger 1948.
CORRECTION = {"flanged": 8 / (3 * math.pi), "free": 0.613}


TAU = 2 * math.pi


class Circuit:
    """A netlist in the making. Everything that is heard flows into the node "out"."""

    def __init__(self, case, air):
        self.air = air
        self.lines = [f"* {case['name']}"]
        self.count = 0

    def add(self, kind, nodes, value):
        self.count += 1
        self.lines.append(f"{kind}{self.count} {nodes} {value}")

    def compliance(self, volume):
        return volume / (self.air["density"] * self.air["speed"] ** 2)

    def chamber(self, node, box, reference):
        """A chamber with its leak to the outside and its absorption, both referred to a frequency."""
        compliance = self.compliance(box["volume"])
        inner = node
        if "qa" in box:
            inner = f"{node}a"
            self.add("R", f"{node} {inner}", 1 / (TAU * reference * compliance * box["qa"]))
        self.add("C", f"{inner} 0", compliance)
        # Only so that the operating point exists; a ten-millionth of the compliance's admittance.
        self.add("R", f"{node} 0", 1e13)
        if "ql" in box:
            self.add("R", f"{node} out", box["ql"] / (TAU * reference * compliance))

    def port_mass(self, port):
        radius = port["diameter"] / 2
        effective = port["length"] + radius * (CORRECTION[port["inner"]] + CORRECTION[port["outer"]])
        return self.air["density"] * effective / (math.pi * radius**2) / port["count"]

    def vented(self, node, box, beyond):
        """A chamber with ports to another node, its losses referred to Helmholtz's resonance."""
        masses = [self.port_mass(port) for port in box["ports"]]
        joint = 1 / sum(1 / mass for mass in masses)
        self.chamber(node, box, 1 / (TAU * math.sqrt(self.compliance(box["volume"]) * joint)))
        for mass in masses:
            self.add("L", f"{node} {beyond}", mass)

    def closed(self, node, box, driver):
        """A closed chamber, its losses referred to the resonance of driver and box together."""
        stiffness = 1 / driver["cms"] + driver["sd"] ** 2 / self.compliance(box["volume"])
        self.chamber(node, box, math.sqrt(stiffness / driver["mms"]) / TAU)

    def radiated(self, node, box, radiator):
        """A chamber with passive radiators: mass on the springs of suspension and box."""
        area = radiator["count"] * radiator["area"]
        spring = radiator["area"] * area / self.compliance(box["volume"])
        tuning = math.sqrt((1 / radiator["compliance"] + spring) / radiator["mass"]) / TAU
        self.chamber(node, box, tuning)
        scale = radiator["area"] * area
        self.add("R", f"{node} d1", radiator["resistance"] / scale)
        self.add("L", "d1 d2", radiator["mass"] / scale)
        self.add("C", "d2 out", radiator["compliance"] * scale)

    def driver(self, driver, poles, front, rear, name=""):
        """One driver: its coil between two poles, its cone between the air before and behind it."""
        plus, minus = poles
        self.lines += [
            f"RE{name} {plus} e1{name} {driver['re']}",
            f"LE{name} e1{name} e2{name} {driver['le']}",
            f"HBL{name} e2{name} e3{name} VCONE{name} {driver['bl']}",
            f"VCOIL{name} e3{name} {minus} 0",
            f"HF{name} m1{name} 0 VCOIL{name} {driver['bl']}",
            f"VCONE{name} m1{name} m2{name} 0",
            f"LM{name} m2{name} m3{name} {driver['mms']}",
            f"CM{name} m3{name} m4{name} {driver['cms']}",
            f"RM{name} m4{name} m5{name} {driver['rms']}",
            f"EP{name} m5{name} 0 {rear} {front} {driver['sd']}",
            f"FU{name} {front} {rear} VCONE{name} {driver['sd']}",
            f"RDM{name} m3{name} m4{name} 1e9",
        ]

    def branch(self, nodes, branch):
        """Resistor, coil and capacitor one behind the other."""
        present = [(kind, branch[key]) for kind, key in (("R", "r"), ("L", "l"), ("C", "c")) if key in branch]
        here = nodes[0]
        for index, (kind, value) in enumerate(present):
            there = nodes[1] if index == len(present) - 1 else f"x{self.count + 1}"
            self.add(kind, f"{here} {there}", value)
            here = there

    def part(self, part, plus):
        """A passive part in the live lead or across; returns the live lead behind it."""
        behind = f"p{self.count + 1}" if part["in_series"] else "0"
        for branch in part["branches"]:
            self.branch((plus, behind), branch)
        return behind if part["in_series"] else plus

    def motor(self, case, front, rear):
        """The driver, or an isobaric pair with the air between its cones, behind its cable."""
        plus = "in"
        if "output_resistance" in case:
            plus = "live"
            self.lines.append(f"ROUT in {plus} {case['output_resistance']}")
        if "series_resistance" in case:
            self.lines.append(f"RCABLE {plus} terminal {case['series_resistance']}")
            plus = "terminal"
        for part in case.get("parts", []):
            plus = self.part(part, plus)
        self.lines += [f"V1 in 0 AC {case['volts']}", "VOUT out 0 0"]
        if "isobaric" not in case:
            return self.driver(case["driver"], (plus, "0"), front, rear)
        pair = case["isobaric"]
        joint = ("joint", "joint") if pair["coils"] == "series" else ("0", plus)
        self.driver(case["driver"], (plus, joint[0]), front, "between", "a")
        self.driver(case["driver"], (joint[1], "0"), "between", rear, "b")
        self.add("C", "between 0", self.compliance(pair["volume"]))
        self.add("R", "between 0", 1e13)


def joined(case):
    """What a pair moves as if its cones were one: what losses are referred to."""
    driver = case["driver"]
    if "isobaric" not in case:
        return driver
    return driver | {"mms": 2 * driver["mms"], "cms": driver["cms"] / 2}


def netlist(case, air):
    circuit = Circuit(case, air)
    family = case["family"]
    bandpass = family.startswith("bandpass")
    circuit.motor(case, "front" if bandpass else "out", "rear")
    rear = case["rear"]
    if "ports" in rear:
        circuit.vented("rear", rear, "front" if family == "bandpass6-series" else "out")
    elif "radiator" in case:
        circuit.radiated("rear", rear, case["radiator"])
    else:
        circuit.closed("rear", rear, joined(case))
    if "vent_resistance" in case:
        circuit.add("R", "rear out", case["vent_resistance"])
    if bandpass:
        circuit.vented("front", case["front"], "out")
    circuit.lines += [
        ".control",
        "set wr_singlescale",
        "set numdgt=12",
        f"ac dec {POINTS_PER_DECADE} 10 1000",
        "wrdata OUTPUT i(v1) i(vout)",
        "quit 0",
        ".endc",
        ".end",
    ]
    return "\n".join(circuit.lines) + "\n"


def solve(text):
    with tempfile.TemporaryDirectory() as folder:
        output = pathlib.Path(folder) / "out.txt"
        source = pathlib.Path(folder) / "in.cir"
        source.write_text(text.replace("OUTPUT", str(output)))
        subprocess.run(["ngspice", "-b", str(source)], check=True, capture_output=True)
        return [[float(word) for word in line.split()] for line in output.read_text().splitlines()]


def main():
    plan = json.loads((HERE / "cases.json").read_text())
    air = plan["air"]
    for case in plan["cases"]:
        text = netlist(case, air)
        (HERE / f"{case['name']}.cir").write_text(text)
        with open(HERE / f"{case['name']}.csv", "w", newline="") as file:
            writer = csv.writer(file, lineterminator="\n")
            writer.writerow(["frequency_hz", "level_db", "impedance_ohm", "impedance_phase_deg"])
            for frequency, ire, iim, ure, uim in solve(text):
                outflow = complex(ure, uim)
                pressure = 2j * math.pi * frequency * air["density"] * outflow / (2 * math.pi)
                impedance = case["volts"] / -complex(ire, iim) - case.get("output_resistance", 0)
                writer.writerow([
                    f"{frequency:.9g}",
                    f"{20 * math.log10(abs(pressure) / 20e-6):.6f}",
                    f"{abs(impedance):.8g}",
                    f"{math.degrees(cmath.phase(impedance)):.6f}",
                ])


main()
