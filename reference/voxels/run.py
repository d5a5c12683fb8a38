#!/usr/bin/env python3
"""Boxes filled with small cubes: what is drawn is what is counted, and the only ways out are those that are stated.

Only the three-dimensional model that `oak-drum built` writes is read: the inner faces of the boards, the pieces of what is mounted,
the middle lines of ports. numpy marks cubes of at most 2 mm (an eighth of the narrowest passage where that is less) and
scipy.ndimage floods them. Demo designs, and random ones over all shapes and kinds of cabinets; those that the program itself says
cannot be built are left out.

Kept beside this script, for every design and chamber: the volume of its air by the ledger and by counting, what two parts share,
where a port's air touches the chamber beside its inner mouth, and what stands in the clear air before that.

    cargo xtask reference, or by itself: run.py [--designs N]
"""

import csv
import json
import multiprocessing
import pathlib
import random
import subprocess
import sys
import tempfile

import numpy as np
from scipy import ndimage

HERE = pathlib.Path(__file__).parent
ROOT = HERE.parent.parent
sys.path.insert(0, str(HERE.parent / "as-built"))
import run as as_built  # noqa: E402

DESIGNS = 300
SHAPES = ["box", "wedge", "prism", "pipe", "lying_pipe", "pyramid", "rounded", "step"]
LONG = ["line", "mass_loaded_line", "back_horn", "front_horn", "tapped_horn"]


class Grid:
    """Middles of cubes between two corners, no larger than a side; a whole number of them along each axis."""

    def __init__(self, low, high, side):
        self.low = np.array(low)
        self.count = np.maximum(1, np.ceil((np.array(high) - low) / side - 1e-9)).astype(int)
        self.side = (np.array(high) - low) / self.count

    def axis(self, k, begin=0, end=None):
        end = self.count[k] if end is None else end
        return self.low[k] + (np.arange(begin, end) + 0.5) * self.side[k]

    def window(self, low, high):
        begin = np.clip(np.floor((np.array(low) - self.low) / self.side).astype(int) - 1, 0, self.count)
        end = np.clip(np.ceil((np.array(high) - self.low) / self.side).astype(int) + 1, 0, self.count)
        return [slice(b, max(b, e)) for b, e in zip(begin, end)]

    def points(self, window):
        axes = [self.axis(k, w.start, w.stop) for k, w in enumerate(window)]
        return np.meshgrid(*axes, indexing="ij", sparse=True)


def within(x, y, polygon):
    """Whether points lie in a polygon of the plane."""
    inside = np.zeros(np.broadcast(x, y).shape, bool)
    for (ax, ay), (bx, by) in zip(polygon, polygon[1:] + polygon[:1]):
        if ay != by:
            crosses = (ay > y) != (by > y)
            inside ^= crosses & (x < ax + (y - ay) * (bx - ax) / (by - ay))
    return inside


def hollow(grid, facets):
    """Cubes inside a closed surface of flat facets: along every column one is inside between the facets that it passes."""
    room = np.zeros(grid.count, bool)
    x, y = grid.axis(0)[:, None], grid.axis(1)[None, :]
    z = grid.axis(2)
    flips = np.zeros((*grid.count[:2], grid.count[2] + 1), np.int16)
    for facet in facets:
        p = np.array(facet)
        normal = sum(np.cross(p[i] - p[0], p[i + 1] - p[0]) for i in range(1, len(p) - 1))
        if abs(normal[2]) < 1e-12 * np.linalg.norm(normal):
            continue
        # Nudged aside, so that no column runs along an edge.
        inside = within(x + 1.1e-7, y + 1.7e-7, [tuple(q[:2]) for q in p])
        at = p[0][2] - (normal[0] * (x - p[0][0]) + normal[1] * (y - p[0][1])) / normal[2]
        index = np.clip(np.searchsorted(z, at.ravel()).reshape(at.shape), 0, grid.count[2])
        i, j = np.nonzero(inside)
        np.add.at(flips, (i, j, index[i, j]), 1)
    room[:] = np.cumsum(flips, axis=2)[:, :, : grid.count[2]] % 2 == 1
    return room


def bounds(piece):
    if piece["shape"] == "block":
        return np.array(piece["low"]), np.array(piece["high"])
    if piece["shape"] == "prism":
        points = np.array(piece["near"] + piece["far"])
        return points.min(0), points.max(0)
    ends, reach = np.array([piece["from"], piece["to"]]), max(piece["radii"])
    return ends.min(0) - reach, ends.max(0) + reach


def marked(grid, piece):
    """A window of the grid and which of its cubes a piece takes."""
    window = grid.window(*bounds(piece))
    x, y, z = grid.points(window)
    if piece["shape"] == "block":
        low, high = piece["low"], piece["high"]
        return window, (x >= low[0]) & (x < high[0]) & (y >= low[1]) & (y < high[1]) & (z >= low[2]) & (z < high[2])
    if piece["shape"] == "rod":
        a = np.array(piece["from"])
        axis = np.array(piece["to"]) - a
        size = axis @ axis
        part = ((x - a[0]) * axis[0] + (y - a[1]) * axis[1] + (z - a[2]) * axis[2]) / size
        aside = (x - a[0] - part * axis[0]) ** 2 + (y - a[1] - part * axis[1]) ** 2 + (z - a[2] - part * axis[2]) ** 2
        radius = piece["radii"][0] + part * (piece["radii"][1] - piece["radii"][0])
        return window, (part >= 0) & (part <= 1) & (aside <= radius**2)
    near, far = np.array(piece["near"]), np.array(piece["far"])
    normal = np.cross(near[1] - near[0], near[2] - near[0])
    along = far[0] - near[0]
    part = ((x - near[0][0]) * normal[0] + (y - near[0][1]) * normal[1] + (z - near[0][2]) * normal[2]) / (along @ normal)
    drop = int(np.argmax(abs(normal)))
    keep = [k for k in range(3) if k != drop]
    foot = [c - part * along[k] for k, c in enumerate((x, y, z))]
    polygon = [tuple(q[keep]) for q in near]
    return window, (part >= 0) & (part <= 1) & within(foot[keep[0]], foot[keep[1]], polygon)


def passage(grid, part, inside):
    """Cubes of a port's air, and of the air that is to be clear before its inner end."""
    size, path = part["size"], np.array(part["path"])
    legs = list(zip(path[:-1], path[1:]))
    air = np.zeros(grid.count, bool)
    normal = np.array(part["normal"])
    up = np.array([0.0, 1, 0]) if abs(normal[1]) < 0.5 else np.array([0, 0, -1.0])
    for index, (a, b) in enumerate(legs):
        direction = (b - a) / np.linalg.norm(b - a)
        if part["round"]:
            stretch = size[0] / 2 if index + 1 < len(legs) else 0
            piece = {"shape": "rod", "from": list(a), "to": list(b + stretch * direction), "radii": [size[0] / 2] * 2}
        else:
            # A slot keeps its width; its height is square to its leg.
            wide = np.cross(up, normal)
            tall = np.abs(np.cross(direction, wide))
            half = np.abs(wide) * size[0] / 2 + tall * size[1] / 2
            stretch = size[1] / 2 if index + 1 < len(legs) else 0
            back = size[1] / 2 if index > 0 else 0
            ends = np.array([a - back * direction, b + stretch * direction])
            piece = {"shape": "block", "low": list(ends.min(0) - half), "high": list(ends.max(0) + half)}
        window, taken = marked(grid, piece)
        air[tuple(window)] |= taken
    end, direction = path[-1], (path[-1] - path[-2]) / np.linalg.norm(path[-1] - path[-2])
    gap = size[1] if not part["round"] else size[0]
    return air & inside, end, direction, gap


def look(name, built):
    """One row for each chamber."""
    model = built["model"]
    faces = [panel["inner"] for panel in model["panels"]]
    corners = np.array([corner for face in faces for corner in face])
    narrow = [min(p["size"]) for p in model["parts"] if len(p["path"]) > 1 and min(p["size"]) > 0]
    grid = Grid(corners.min(0), corners.max(0), min([2e-3, *(size / 8 for size in narrow)]))
    side, cube = max(grid.side), np.prod(grid.side)
    inside = hollow(grid, faces)
    owner = np.zeros(grid.count, np.int16)
    shared = 0
    for index, part in enumerate(model["parts"]):
        whole = np.zeros(grid.count, bool)
        for piece in part["pieces"]:
            window, taken = marked(grid, piece)
            whole[tuple(window)] |= taken
        whole &= inside
        shared += int((whole & (owner > 0)).sum())
        owner[whole & (owner == 0)] = index + 1
    air = inside & (owner == 0)
    parts, count = ndimage.label(air)
    sizes = ndimage.sum_labels(air, parts, range(1, count + 1)) * cube
    largest = sorted(sizes, reverse=True)
    # Space that is closed off beside a chamber is none of them.
    unused = built.get("unused")
    if unused:
        closed_off = min(largest, key=lambda size: abs(size - unused))
        largest.remove(closed_off)
    beside = blocked = 0
    for part in model["parts"]:
        if not part["name"].split()[0] in ("port", "front") or len(part["path"]) < 2 or part["corner"]:
            continue
        flow, end, direction, gap = passage(grid, part, inside)
        axis = int(np.argmax(abs(direction)))
        # Cubes of its air whose neighbour is air of the chamber, other than through its end.
        for k in range(3):
            for step in (1, -1):
                if k == axis and np.sign(direction[axis]) == step:
                    continue
                neighbour = np.roll(air, -step, k)
                edge = [slice(None)] * 3
                edge[k] = -1 if step == 1 else 0
                neighbour[tuple(edge)] = False
                touching = flow & neighbour
                if touching.any():
                    where = [grid.axis(j)[index] for j, index in enumerate(np.nonzero(touching))]
                    from_plane = lambda place: abs(sum((where[j] - place[j]) * direction[j] for j in range(3)))
                    # A slanting end is a flight of steps. A port through a partition opens at both.
                    beside += int(((from_plane(end) > 2 * side) & (from_plane(part["path"][0]) > 2 * side)).sum())
        window = np.clip(np.round((end - grid.low) / grid.side - 0.5).astype(int), 0, grid.count - 1)
        ahead = np.arange(1, int(gap / grid.side[axis])) * int(np.sign(direction[axis]))
        line = window[axis] + ahead
        line = line[(line >= 0) & (line < grid.count[axis])]
        index = [np.full(len(line), w) for w in window]
        index[axis] = line
        blocked += int((~air[tuple(index)]).sum()) + (int(gap / grid.side[axis]) - 1 - len(line))
    rows = []
    # A chamber that opens into a way is one room with it.
    nets = sorted((ledger["net"] + 0.0 for ledger in built["ledgers"]), reverse=True)
    if len(nets) > 1 and abs(largest[0] - sum(nets)) < abs(largest[0] - nets[0]):
        nets = [sum(nets)]
    absent = [sum(v for what, v, drawn in ledger["entries"] if not drawn) for ledger in built["ledgers"]]
    if unused:
        rows.append([name, "unused", f"{unused * 1e3:.4f}", f"{closed_off * 1e3:.4f}", "0.0000", 0, 0])
    for number, net in enumerate(nets):
        # What a closing board leaves behind it belongs to none, so each chamber takes what comes nearest to it.
        more = sum(absent) if number == 0 else 0
        found = min(largest, key=lambda size: abs(size - net - more), default=0)
        largest = [size for size in largest if size != found]
        counted = found - more
        rows.append([name, number, f"{net * 1e3:.4f}", f"{counted * 1e3:.4f}", f"{shared * cube * 1e3:.4f}", beside, blocked])
    return rows


def any_design(pick, number, woofers):
    if number % 5 == 0:
        driver = pick.choice(woofers)
        family = LONG[(number // 5) % len(LONG)]
        with tempfile.NamedTemporaryFile("w", suffix=".json") as file:
            json.dump(driver, file)
            file.flush()
            answer = subprocess.run([as_built.PROGRAM, "start", "design", "--driver", file.name, "--family", family], capture_output=True, text=True)
        return json.loads(answer.stdout) | {"name": f"{number:03} {family}"} if answer.returncode == 0 else None
    design = as_built.any_design(pick, number, woofers)
    if design["enclosure"]["family"] != "line":
        body = design["body"]
        for key in ("top_depth", "radius"):
            body.pop(key, None)
        shape = SHAPES[number % len(SHAPES)]
        body |= {"shape": shape}
        size = float(design["driver"]["size"].split()[0])
        body |= {
            "wedge": {"top_depth": f"{round(size * 0.9)} mm"},
            "pyramid": {"top_width": f"{round(size * 1.1)} mm", "top_depth": f"{round(size)} mm"},
            "rounded": {"radius": "40 mm"},
            "step": {"step_height": f"{round(size * 0.4)} mm", "step_depth": f"{round(size * 0.3)} mm"},
        }.get(shape, {})
        if shape == "box" and design["enclosure"].get("ports") and pick.random() < 0.5:
            port = design["enclosure"]["ports"][0]
            if port["shape"] == "slot":
                port.pop("width")
                port["inner_end"] = "three_walls"
            body["ports"] = [{"turns": pick.randint(0, 2)}]
    return design


def done(task):
    return look(*task)


def main():
    wanted = int(sys.argv[sys.argv.index("--designs") + 1]) if "--designs" in sys.argv else DESIGNS
    tasks, pick, woofers = [], random.Random(17), as_built.drivers()
    for file in sorted((ROOT / "demo/builds").glob("*.json")):
        for variant in json.loads(file.read_text())["variants"]:
            built = as_built.exported(variant)
            if built and built["model"] and not built["forbids"]:
                tasks.append((variant["name"], built))
    random_ones = tried = 0
    while random_ones < wanted:
        tried += 1
        design = any_design(pick, tried, woofers)
        built = design and as_built.exported(design)
        if not built or built["forbids"] or not built["model"]:
            continue
        random_ones += 1
        tasks.append((f'{design["name"]}, {design.get("body", {}).get("shape", "box")}', built))
    with multiprocessing.Pool(2) as pool:
        rows = [row for found in pool.imap(done, tasks) for row in found]
    with open(HERE / "volumes.csv", "w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["design", "chamber", "ledger_l", "counted_l", "shared_l", "beside", "blocked"])
        writer.writerows(rows)
    off = [abs(float(row[3]) / float(row[2]) - 1) for row in rows]
    print(f"{len(rows)} chambers, farthest off {max(off):.2%}, {sum(o > 0.01 for o in off)} by more than 1 %")


if __name__ == "__main__":
    main()
