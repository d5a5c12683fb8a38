"""Makes the fonts of the book from the front end's own packages: one weight each, Latin and its extensions, as TrueType.

    pip install fonttools brotli
    python3 core/book/fonts/make.py
"""

from pathlib import Path
from tempfile import TemporaryDirectory

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

ROOT = Path(__file__).resolve().parents[3]
PACKAGES = ROOT / "web/node_modules/@fontsource-variable"
FONTS = [
    ("atkinson-hyperlegible-next", 400, "text"),
    ("atkinson-hyperlegible-next", 700, "bold"),
    ("atkinson-hyperlegible-mono", 400, "figures"),
    ("bricolage-grotesque", 700, "heading"),
]

for package, weight, name in FONTS:
    with TemporaryDirectory() as folder:
        parts = []
        for script in ("latin", "latin-ext"):
            font = TTFont(PACKAGES / package / "files" / f"{package}-{script}-wght-normal.woff2")
            font = instantiateVariableFont(font, {"wght": weight})
            font.flavor = None
            for table in ("GSUB", "GPOS", "GDEF", "STAT"):
                if table in font and script == "latin-ext":
                    del font[table]
            part = f"{folder}/{script}.ttf"
            font.save(part)
            parts.append(part)
        merged = Merger().merge(parts)
        merged.save(Path(__file__).parent / f"{name}.ttf")
    licence = (PACKAGES / package / "LICENSE").read_text()
    (Path(__file__).parent / f"{package}.LICENSE").write_text(licence)
