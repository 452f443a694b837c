"""Wide Pin: construction tasks for geometry classes, and the judge that checks them."""

VERSION = "0.11.0"


def version() -> str:
    """The version of this program."""
    return VERSION
