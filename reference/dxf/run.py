#!/usr/bin/env python3
"""Boards of demo designs as another program reads them: their DXF, written by `oak-drum panel`, read with ezdxf.

Kept beside this script, for each board: the unit of the file, what its outline spans, and every circle with its layer.

    cargo xtask reference
"""

import json
import os
import pathlib
import subprocess
import tempfile

import ezdxf
from ezdxf import bbox

HERE = pathlib.Path(__file__).parent
ROOT = HERE.parent.parent
PROGRAM = pathlib.Path(os.environ.get("OAK_DRUM", ROOT / "target/debug/oak-drum"))
BUILDS = ["pit-organ", "barn-dance", "narrowboat-nook"]
MOST = 60


def board(design, number):
    """The file of a board, audited and read; None where there is no such board."""
    asked = [PROGRAM, "panel", design, "--number", str(number)]
    found = subprocess.run(asked, capture_output=True, check=False)
    if found.returncode:
        return None
    with tempfile.NamedTemporaryFile(suffix=".dxf") as file:
        file.write(found.stdout)
        file.flush()
        document = ezdxf.readfile(file.name)
    errors = document.audit().errors
    assert not errors, errors
    space = document.modelspace()
    outline = [entity for entity in space.query("LWPOLYLINE") if entity.dxf.layer == "cut"]
    spans = bbox.extents(outline)
    circles = [
        [circle.dxf.layer, *(round(value, 4) for value in (circle.dxf.center.x, circle.dxf.center.y, 2 * circle.dxf.radius))]
        for circle in space.query("CIRCLE")
    ]
    return {
        "millimetres": document.units == ezdxf.units.MM,
        "from": [round(spans.extmin.x, 4), round(spans.extmin.y, 4)],
        "size": [round(spans.size.x, 4), round(spans.size.y, 4)],
        "circles": sorted(circles),
        "labels": sorted(text.dxf.text for text in space.query("TEXT")),
    }


def main():
    results = {}
    for build in BUILDS:
        document = json.loads((ROOT / "demo/builds" / f"{build}.json").read_text())
        with tempfile.NamedTemporaryFile("w", suffix=".json") as file:
            json.dump(document["variants"][0], file)
            file.flush()
            boards = (board(file.name, number) for number in range(1, MOST))
            results[build] = [found for found in boards if found]
        assert results[build], build
    (HERE / "results.json").write_text(json.dumps(results, indent=1) + "\n")


if __name__ == "__main__":
    main()
