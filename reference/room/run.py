"""Sound of small sources in a rectangular room by finite elements (scikit-fem), with the same locally reacting walls.

Weak form, time factor exp(+jwt): integral of grad G grad q - k^2 G q, plus j k beta times the integral over the walls, equals q at the
source; beta = alpha/8. What is written is T = 2 pi G, the pressure at the seat over that at 1 m in half space. Quadratic hexahedra,
finer where the walls are hard: a small error in frequency counts more there. Writes results.csv.
"""

import csv
import json
import math
import pathlib

import numpy as np
from scipy.sparse.linalg import splu
from skfem import Basis, BilinearForm, ElementHex2, FacetBasis, MeshHex, asm
from skfem.helpers import dot, grad

HERE = pathlib.Path(__file__).parent

@BilinearForm
def stiffness(u, v, w):
    return dot(grad(u), grad(v))


@BilinearForm
def mass(u, v, w):
    return u * v


def assembled(case):
    axes = [np.linspace(0.0, size, math.ceil(size / case["largest"]) + 1) for size in case["size"]]
    mesh = MeshHex.init_tensor(*axes)
    element = ElementHex2()
    basis = Basis(mesh, element)
    walls = 0
    for axis, (low, high) in enumerate(case["absorption"]):
        for place, absorption in ((0.0, low), (case["size"][axis], high)):
            facets = mesh.facets_satisfying(lambda x, axis=axis, place=place: np.isclose(x[axis], place))
            walls = walls + absorption / 8 * asm(mass, FacetBasis(mesh, element, facets=facets))
    return basis, asm(stiffness, basis), asm(mass, basis), walls


def main():
    plan = json.loads((HERE / "cases.json").read_text())
    grid = plan["frequencies"]
    frequencies = np.linspace(grid["from"], grid["to"], grid["points"])
    with open(HERE / "results.csv", "w", newline="") as file:
        out = csv.writer(file, lineterminator="\n")
        out.writerow(["case", "source", "seat", "frequency_hz", "real", "imaginary"])
        for case in plan["cases"]:
            basis, k_matrix, m_matrix, walls = assembled(case)
            at = {key: basis.probes(np.array(case[key]).T).tocsr() for key in ("sources", "seats")}
            for frequency in frequencies:
                k = 2 * math.pi * frequency / plan["air"]["speed"]
                solve = splu((k_matrix - k**2 * m_matrix + 1j * k * walls).tocsc())
                for s in range(len(case["sources"])):
                    field = solve.solve(at["sources"][s].toarray().ravel().astype(complex))
                    for r, value in enumerate(2 * math.pi * (at["seats"] @ field)):
                        row = [case["name"], s, r, f"{frequency:g}", repr(float(value.real)), repr(float(value.imag))]
                        out.writerow(row)


main()
