"""Wide Pin: construction tasks for geometry classes, and the judge that checks them."""
