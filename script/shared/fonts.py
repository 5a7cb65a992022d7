"""The fonts of printed pages: static TrueType files cut from the variable fonts that the interface ships.

The PDF library takes neither variable fonts nor woff2. Run after those fonts were updated; the files are committed.
"""

from pathlib import Path
from tempfile import TemporaryDirectory

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

CHECKOUT = Path(__file__).resolve().parents[2]
SHIPPED = CHECKOUT / "frontend/node_modules/@fontsource-variable"
PRINTED = CHECKOUT / "ruvak/formats/fonts"
SCRIPTS = ("latin", "latin-ext", "vietnamese", "greek", "cyrillic")
FONTS: dict[str, tuple[str, str, dict[str, float]]] = {
    "name": ("saira", "Saira Condensed SemiBold", {"wght": 600, "wdth": 75}),
    "text": ("ibm-plex-sans", "IBM Plex Sans", {"wght": 400, "wdth": 100}),
    "strong": ("ibm-plex-sans", "IBM Plex Sans SemiBold", {"wght": 600, "wdth": 100}),
}
"""By file name: the shipped font, what it is called in the PDF, and where it is cut on its axes."""


def main() -> None:
    """Writes every file anew."""
    PRINTED.mkdir(exist_ok=True)
    for name in FONTS:
        (PRINTED / f"{name}.ttf").write_bytes(font_file(name))


def font_file(name: str) -> bytes:
    """A printed font, with all scripts that the shipped one has."""
    family, title, axes = FONTS[name]
    with TemporaryDirectory() as folder:
        parts = [part for script in SCRIPTS if (part := _instance(family, script, axes, Path(folder)))]
        merged = Merger().merge([str(part) for part in parts])
        for record in merged["name"].names:
            if record.nameID in (1, 3, 4, 6, 16):
                record.string = title.replace(" ", "") if record.nameID == 6 else title
        merged["head"].modified = merged["head"].created
        merged.recalcTimestamp = False
        file = Path(folder) / "merged.ttf"
        merged.save(file)
        return file.read_bytes()


def _instance(family: str, script: str, axes: dict[str, float], folder: Path) -> Path | None:
    source = SHIPPED / family / "files" / f"{family}-{script}-wdth-normal.woff2"
    if not source.exists():
        return None
    font = instantiateVariableFont(TTFont(source), axes)
    font.flavor = None
    # Ligatures and kerning tables cannot be merged across scripts, and the PDF library uses neither.
    for table in ("GSUB", "GPOS", "GDEF", "STAT", "MVAR", "DSIG", "avar"):
        if table in font:
            del font[table]
    file = folder / f"{script}.ttf"
    font.save(file)
    return file


if __name__ == "__main__":
    main()
