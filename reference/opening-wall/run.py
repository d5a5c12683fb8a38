"""How much longer the air of a tube seems whose mouth, in the back of a cabinet, faces a wall: Laplace's equation for the
potential of an incompressible flow, symmetric about the tube's axis, by quadratic finite elements (scikit-fem).

Lengths over the tube's radius: `reach`, from its axis to the edge of the back; `gap`, from the back to the wall; `extra`, how much
longer it seems than with no wall. Kept beside this script in results.json."""

import json
from pathlib import Path

import numpy as np
from skfem import Basis, BilinearForm, ElementQuad2, FacetBasis, LinearForm, MeshQuad, condense, solve
from skfem.helpers import dot, grad

HERE = Path(__file__).parent
TUBE = 4.0


def graded(lines, first, growth=1.25):
    """Places between lines, the closer the nearer to a line."""
    places = [lines[0]]
    for low, high in zip(lines[:-1], lines[1:]):
        near, step, at = [], first, first
        while at < (high - low) / 2:
            near.append(at)
            step *= growth
            at += step
        places += [low + x for x in near] + [high - x for x in reversed(near)] + [high]
    return np.unique(np.round(places, 12))


def end(reach, gap):
    """Length correction of the mouth; with no wall for a gap of None."""
    far = 12 * max(reach, gap or 0, 1)
    top = far if gap is None else gap
    mesh = MeshQuad.init_tensor(graded([0, 1, reach, far], 0.04), graded([-far, -TUBE, 0, top], min(0.04, top / 8)))
    r, z = mesh.p[:, mesh.t].mean(axis=1)
    wood = ((r > 1) & (r < reach) & (z < 0)) | ((r < 1) & (z < -TUBE))
    mesh = mesh.remove_elements(np.nonzero(wood)[0])
    basis = Basis(mesh, ElementQuad2())
    stiffness = BilinearForm(lambda u, v, w: dot(grad(u), grad(v)) * w.x[0]).assemble(basis)
    inlet = mesh.facets_satisfying(lambda x: (abs(x[1] + TUBE) < 1e-9) & (x[0] < 1))
    flow = LinearForm(lambda v, w: v * w.x[0]).assemble(FacetBasis(mesh, ElementQuad2(), facets=inlet))
    outlet = mesh.facets_satisfying(
        lambda x: (abs(x[0] - far) < 1e-9) | (abs(x[1] + far) < 1e-9) | ((gap is None) & (abs(x[1] - top) < 1e-9))
    )
    potential = solve(*condense(stiffness, flow, D=basis.get_dofs(outlet).all()))
    return 2 * (flow @ potential) - TUBE


results = []
for reach in (2, 3, 4, 8):
    free = end(reach, None)
    for gap in (0.25, 0.5, 1, 2, 4):
        results.append({"reach": reach, "gap": gap, "extra": round(end(reach, gap) - free, 4)})
(HERE / "results.json").write_text(json.dumps(results, indent=1) + "\n")
