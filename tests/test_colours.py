"""Colours have one home for pages and one for pictures and print, and both say the same."""

import re
from pathlib import Path

from widepin.documents.pictures.colours import COLOURS

LOOK = Path(__file__).parents[1] / "src/widepin/web/static/look"


def test_pages_and_pictures_have_the_same_colours():
    assert dict(re.findall(r"--([\w-]+): (#[0-9a-f]+);", (LOOK / "colours.css").read_text())) == COLOURS


def test_every_colour_that_a_style_names_is_there():
    named = {name for path in LOOK.rglob("*.css") for name in re.findall(r"var\(--([\w-]+)\)", path.read_text())}
    other = {"serif"} | {name for name in named if name.startswith("bs-")}
    assert named - other <= set(COLOURS)
