"""The shelf: tasks that come with the product, each with a model, by topic."""

from .circles import CIRCLES
from .lines import LINES
from .notation import ShelfTask
from .polygons import POLYGONS
from .triangles import TRIANGLES

SHELF: dict[str, ShelfTask] = {task.key: task for task in (*LINES, *TRIANGLES, *CIRCLES, *POLYGONS)}
"""Every task of the shelf by its key, in the order in which they are shown."""

TOPICS = tuple(dict.fromkeys(task.topic for task in SHELF.values()))

__all__ = ["SHELF", "TOPICS", "ShelfTask"]
