"""The task library: tasks that come with the product, each with a model, by topic."""

from .circles import CIRCLES
from .lines import LINES
from .notation import LibraryTask
from .polygons import POLYGONS
from .triangles import TRIANGLES

LIBRARY: dict[str, LibraryTask] = {task.key: task for task in (*LINES, *TRIANGLES, *CIRCLES, *POLYGONS)}
"""Every task of the task library by its key, in the order in which they are shown."""

TOPICS = tuple(dict.fromkeys(task.topic for task in LIBRARY.values()))

__all__ = ["LIBRARY", "TOPICS", "LibraryTask"]
