#!/usr/bin/env python3
"""Solves the circuits of cases.json with ngspice (Debian's package) and keeps netlists and results.

Impedance analogy throughout: the coil as an electrical mesh, the cone as a mechanical mesh (force is
voltage, velocity is current), the air as an acoustic mesh (pressure is voltage, volume velocity is
current), joined by controlled sources. Written from the circuit of Small 1973, not from the program's code.

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


def helmholtz(compliance, mass):
    return 1 / (2 * math.pi * math.sqrt(compliance * mass))


def netlist(case, air):
    driver, volume = case["driver"], case["volume"]
    compliance = volume / (air["density"] * air["speed"] ** 2)
    # Sealed: the resonance of the moving mass on suspension and box together.
    stiffness = 1 / driver["cms"] + driver["sd"] ** 2 / compliance
    reference = math.sqrt(stiffness / driver["mms"]) / (2 * math.pi)
    mass = None
    if port := case.get("port"):
        radius = port["diameter"] / 2
        effective = port["length"] + radius * (CORRECTION[port["inner"]] + CORRECTION[port["outer"]])
        mass = air["density"] * effective / (math.pi * radius**2) / port["count"]
        reference = helmholtz(compliance, mass)
    absorption = 1 / (2 * math.pi * reference * compliance * case["qa"]) if "qa" in case else 0
    lines = [
        f"* {case['name']}",
        f"V1 in 0 AC {case['volts']}",
        f"RE in e1 {driver['re']}",
        f"LE e1 e2 {driver['le']}",
        f"HBL e2 0 VCONE {driver['bl']}",
        f"HF m1 0 V1 {-driver['bl']}",
        "VCONE m1 m2 0",
        f"LM m2 m3 {driver['mms']}",
        f"CM m3 m4 {driver['cms']}",
        f"RM m4 m5 {driver['rms']}",
        f"EP m5 0 box 0 {driver['sd']}",
        f"FU 0 box VCONE {driver['sd']}",
        "VC box c1 0",
        f"CB {'c2' if absorption else 'c1'} 0 {compliance}",
        # Only so that the operating point exists; a ten-millionth of the compliance's admittance.
        "RDC box 0 1e13",
        "RDM m3 m4 1e9",
    ]
    if absorption:
        lines.append(f"RA c1 c2 {absorption}")
    if "ql" in case:
        lines.append(f"RL box 0 {case['ql'] / (2 * math.pi * reference * compliance)}")
    if mass:
        lines.append(f"LP box 0 {mass}")
    lines += [
        ".control",
        "set wr_singlescale",
        "set numdgt=12",
        f"ac dec {POINTS_PER_DECADE} 10 1000",
        "wrdata OUTPUT i(v1) i(vc)",
        "quit 0",
        ".endc",
        ".end",
    ]
    return "\n".join(lines) + "\n"


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
                # The flows out of cone, port and leak sum to the flow into the compliance.
                outflow = complex(ure, uim)
                pressure = 2j * math.pi * frequency * air["density"] * outflow / (2 * math.pi)
                impedance = case["volts"] / -complex(ire, iim)
                writer.writerow([
                    f"{frequency:.9g}",
                    f"{20 * math.log10(abs(pressure) / 20e-6):.6f}",
                    f"{abs(impedance):.8g}",
                    f"{math.degrees(cmath.phase(impedance)):.6f}",
                ])


main()
