#!/usr/bin/env python3
"""Input impedance of ducts and horns with viscothermal losses, by openwind's finite elements.

The results are kept as CSV beside this script, the geometry and the air that openwind computed with in cases.json.
openwind (PyPI) solves the telegraphist's equations with Zwikker-Kosten losses on the exact profile, where the
program chains straight-sided slices.

    cargo xtask reference
"""

import csv
import json
import pathlib

import numpy
from openwind import ImpedanceComputation
from openwind.continuous import Physics

HERE = pathlib.Path(__file__).parent
TEMPERATURE = 20
FREQUENCIES = numpy.geomspace(20, 1000, 600)

# Segments as openwind writes them: start, end (m), radii (m), shape.
CASES = [
    {"name": "conical-horn", "radiation": "unflanged_2nd_order", "bore": [[0, 1.6, 0.03, 0.16, "linear"]]},
    {"name": "exponential-horn", "radiation": "perfectly_open", "bore": [[0, 2.2, 0.05, 0.3, "exponential"]]},
    {
        "name": "stepped-line",
        "radiation": "perfectly_open",
        "bore": [
            [0, 0.8, 0.09, 0.09, "linear"],
            [0.8, 1.7, 0.07, 0.07, "linear"],
            [1.7, 2.8, 0.055, 0.055, "linear"],
        ],
    },
    {"name": "narrow-pipe", "radiation": "perfectly_open", "bore": [[0, 1.2, 0.004, 0.004, "linear"]]},
]


def main():
    air = Physics(TEMPERATURE)
    values = {
        "density": float(air.rho(0)),
        "speed": float(air.c(0)),
        "viscosity": float(air.mu(0)),
        "conductivity": float(air.kappa(0)),
        "specific_heat": float(air.Cp(0)),
        "gamma": float(air.gamma(0)),
    }
    (HERE / "cases.json").write_text(json.dumps({"air": values, "cases": CASES}, indent=1) + "\n")
    for case in CASES:
        computed = ImpedanceComputation(
            FREQUENCIES,
            case["bore"],
            temperature=TEMPERATURE,
            losses=True,
            radiation_category=case["radiation"],
            discontinuity_mass=False,
            nondim=True,
            l_ele=0.02,
            order=6,
        )
        with open(HERE / f"{case['name']}.csv", "w", newline="") as file:
            writer = csv.writer(file, lineterminator="\n")
            writer.writerow(["frequency_hz", "real_pa_s_per_m3", "imaginary_pa_s_per_m3"])
            for frequency, impedance in zip(FREQUENCIES, computed.impedance):
                writer.writerow([f"{frequency:.9g}", f"{impedance.real:.9g}", f"{impedance.imag:.9g}"])


main()
