"""Impedances of a chamber with two openings, by finite elements: the results that the chamber model is tested against.

scikit-fem 12: quadratic hexahedra on a mesh whose faces lie on openings and fill, complex coefficients, a direct solver. The fill
is Allard and Champoux 1992 with a rigid frame, written as the program has it.
"""

import csv
import json
from pathlib import Path

import numpy as np
import scipy.sparse.linalg as linalg
from skfem import Basis, BilinearForm, ElementHex2, FacetBasis, LinearForm, MeshHex

HERE = Path(__file__).parent
CASES = json.loads((HERE / "cases.json").read_text())
STEP = 0.045


def axis(length, places):
    """Mesh lines of one axis: the places, and evenly between them."""
    marks = sorted({0.0, length, *places})
    lines = [0.0]
    for low, high in zip(marks, marks[1:]):
        lines.extend(np.linspace(low, high, int(np.ceil((high - low) / STEP)) + 1)[1:])
    return np.array(lines)


def fill(omega, air):
    """1/density and 1/modulus of the fill."""
    x = air["density"] * omega / (2 * np.pi) / CASES["fill"]["resistivity"]
    heat = -1j * np.sqrt(2.82 / x**2 + 24.9j / x)
    modulus = air["pressure"] * (29.64 + heat) / (21.17 + heat)
    density = air["density"] * (1 + (-1j) * np.sqrt(0.0364 / x**2 + 0.1144j / x) / 1.2)
    return 1 / density, 1 / modulus


def main():
    air, size = CASES["air"], CASES["size"]
    openings = [CASES["driver"], CASES["port"]]
    for case in CASES["cases"]:
        boxes = openings + case["blocks"]
        mesh = MeshHex.init_tensor(*[
            axis(size[k], [box[end][k] for box in boxes for end in ("low", "high")]) for k in range(3)
        ])
        middles = mesh.p[:, mesh.t].mean(axis=1)
        inside = np.zeros(mesh.nelements, dtype=bool)
        for block in case["blocks"]:
            low, high = np.array(block["low"])[:, None], np.array(block["high"])[:, None]
            inside |= ((middles > low) & (middles < high)).all(axis=0)
        element = ElementHex2()

        @BilinearForm
        def stiffness(u, v, w):
            return (u.grad * v.grad).sum(axis=0)

        @BilinearForm
        def mass(u, v, w):
            return u * v

        @LinearForm
        def mean(v, w):
            return v

        regions = []
        for chosen in (~inside, inside):
            if not chosen.any():
                continue
            basis = Basis(mesh, element, elements=np.nonzero(chosen)[0])
            regions.append((stiffness.assemble(basis), mass.assemble(basis)))
        sources = []
        for opening in openings:
            low, high = np.array(opening["low"]) - 1e-9, np.array(opening["high"]) + 1e-9
            facets = mesh.facets_satisfying(
                lambda x: ((x >= low[:, None]) & (x <= high[:, None])).all(axis=0), boundaries_only=True
            )
            source = mean.assemble(FacetBasis(mesh, element, facets=facets))
            sources.append(source / source.sum())
        rows = []
        for frequency in CASES["frequencies"]:
            omega = 2 * np.pi * frequency
            media = [(1 / air["density"], (1 - 1j * air["loss"]) / (air["density"] * air["speed"] ** 2))]
            if len(regions) > 1:
                media.append(fill(omega, air))
            matrix = sum(
                light * k - omega**2 * soft * m for (light, soft), (k, m) in zip(media, regions)
            ).tocsc()
            solved = linalg.splu(matrix).solve(np.array(sources).T.astype(complex))
            row = [frequency]
            for i, j in ((0, 0), (0, 1), (1, 1)):
                z = 1j * omega * sources[i] @ solved[:, j]
                row += [f"{z.real:.6e}", f"{z.imag:.6e}"]
            rows.append(row)
        with (HERE / f"{case['name']}.csv").open("w", newline="") as file:
            writer = csv.writer(file, lineterminator="\n")
            writer.writerow(["frequency", "z11_re", "z11_im", "z12_re", "z12_im", "z22_re", "z22_im"])
            writer.writerows(rows)


if __name__ == "__main__":
    main()
