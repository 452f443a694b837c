"""The task library: tasks that come with the product, each with a sample solution, by topic."""

from ....documents.language import marked as _
from .circles import CIRCLES
from .lines import LINES
from .notation import LibraryTask
from .one_tool import ONE_TOOL
from .polygons import POLYGONS
from .reflections import REFLECTIONS
from .segments import SEGMENTS
from .triangles import TRIANGLES

LIBRARY: dict[str, LibraryTask] = {
    task.key: task for task in (*SEGMENTS, *LINES, *REFLECTIONS, *TRIANGLES, *CIRCLES, *POLYGONS, *ONE_TOOL)
}
"""Every task of the library by its key, in the order in which they are shown."""

TOPICS = tuple(dict.fromkeys(task.topic for task in LIBRARY.values()))

LEVELS = {1: _("first steps"), 2: _("standard"), 3: _("advanced"), 4: _("challenge")}
"""What the levels of tasks are called."""

__all__ = ["LEVELS", "LIBRARY", "TOPICS", "LibraryTask"]
