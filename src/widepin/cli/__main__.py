"""``python -m widepin.cli``."""

from . import main

main(prog_name="widepin")
