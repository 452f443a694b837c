"""The task library: every sample solution is sound within its own tools and limit, and teachers find what they look for."""

from dataclasses import replace

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.formats.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.tasks.library import LEVELS, LIBRARY, TOPICS
from widepin.school.tasks.library.notation import steps
from widepin.web.sheets.library import found_by


@pytest.fixture(params=list(LIBRARY.values()), ids=list(LIBRARY))
def library_task(request):
    return request.param


def test_a_sample_solution_is_sound_and_within_its_limit(library_task):
    task = read_task(library_task.document())
    verdict = judge(task, Work(task.model), report=False)
    assert (verdict.outcome, verdict.counts.moves) == (Outcome.SOUND, library_task.moves)
    assert verdict.counts.idle == ()


TAUGHT = {
    "third-of-a-segment": """
Q free_point at=4,6
r ray A Q
c circle A Q
d circle Q A
R intersection r d pick=2
e circle R Q
T intersection r e pick=2
f line T B
g parallel f Q
P intersection g s
""",
    "perpendicular-through-a-point": """
c circle P A
D intersection c g other_than=A
d circle A P
e circle D P
E intersection d e other_than=P
p line P E
""",
    "parallel-through-a-point": """
c circle A P
R intersection g c pick=2
d circle P A
e circle R A
S intersection d e other_than=A
n line P S
""",
    "mirror-a-point": """
c circle P A
D intersection c g other_than=A
d circle A P
e circle D P
E intersection d e other_than=P
p line P E
F intersection p g
f circle F P
Q intersection f p other_than=P
""",
    "shortest-path": """
c circle A C
X intersection c g other_than=C
d circle C A
e circle X A
E intersection d e other_than=A
l line E B
P intersection l g
""",
    "foot-of-an-altitude": """
h line A B
k circle C A
D intersection h k other_than=A
d circle A C
e circle D C
E intersection d e other_than=C
p line C E
F intersection p h
""",
    "equilateral-in-a-circle": """
c circle A O
D intersection k c pick=1
d circle D O
B intersection k d other_than=A
e circle B O
E intersection k e other_than=D
f circle E O
C intersection k f other_than=B
""",
    "hexagon-in-a-circle": """
c circle A O
B intersection k c pick=1
d circle B O
C intersection k d other_than=A
e circle C O
D intersection k e other_than=B
f circle D O
E intersection k f other_than=C
g circle E O
F intersection k g other_than=D
""",
    "hexagon-on-a-side": """
c circle A B
d circle B A
O intersection c d pick=1
k circle O A
C intersection k d other_than=A
e circle C O
D intersection k e other_than=B
f circle D O
E intersection k f other_than=C
g circle E O
F intersection k g other_than=D
""",
    "pentagon-in-a-circle": """
l line O A
p perpendicular l O
U intersection p k pick=1
M midpoint O U
c circle M A
V intersection c p pick=2
e circle A V
B intersection e k pick=1
f circle B A
C intersection f k other_than=A
g circle C B
D intersection g k other_than=B
h circle D C
E intersection h k other_than=C
""",
    "thirty-degrees": """
c circle A B
d circle B A
E intersection c d pick=1
h ray A E
e circle E A
P intersection d e other_than=A
""",
}
"""The way that is taught of tasks whose sample solution is a shorter one."""


@pytest.mark.parametrize("key", [key for key, task in LIBRARY.items() if task.limit])
def test_the_way_that_is_taught_is_within_the_limit(key):
    task = read_task(LIBRARY[key].document())
    verdict = judge(task, Work(read_steps(steps(TAUGHT[key]))), report=False)
    assert verdict.outcome is Outcome.SOUND
    assert LIBRARY[key].moves < verdict.counts.moves <= (task.budget or 0)


def test_an_empty_work_is_wrong(library_task):
    task = read_task(library_task.document())
    verdict = judge(replace(task, budget=None), Work(()), report=False)
    assert verdict.outcome is Outcome.WRONG


def test_prerequisites_are_in_the_library_and_no_harder(library_task):
    for key in library_task.prerequisites:
        assert key != library_task.key and LIBRARY[key].level <= library_task.level


def test_no_task_waits_for_itself():
    done: set[str] = set()
    while more := {key for key, task in LIBRARY.items() if key not in done and done.issuperset(task.prerequisites)}:
        done |= more
    assert done == set(LIBRARY)


def test_every_task_says_what_goes_wrong_and_what_it_is_called(library_task):
    assert library_task.level in LEVELS
    assert library_task.mistake.endswith(".") and library_task.text.endswith(".")
    assert len(library_task.terms.split(", ")) >= 3


def test_the_library_covers_its_topics():
    assert len(LIBRARY) >= 60 and len({task.title for task in LIBRARY.values()}) == len(LIBRARY)
    assert set(TOPICS) == {
        "Segments",
        "Division of segments",
        "Angles",
        "Perpendiculars",
        "Parallels",
        "Reflections and shortest paths",
        "Triangle centres",
        "Triangles from given parts",
        "Circles and tangents",
        "Polygons",
        "Compass alone",
        "Ruler alone",
    }


# The index of a geometry textbook, and a task that each term must lead to.
INDEX = {
    "altitude": "foot-of-an-altitude",
    "angle bisector": "bisect-an-angle",
    "apollonius": "apollonius",
    "axis of symmetry": "perpendicular-bisector",
    "barycenter": "centroid",
    "center of a circle": "lost-centre",
    "centroid": "centroid",
    "chord": "lost-centre",
    "circumcenter": "circumcircle",
    "circumcentre": "circumcircle",
    "common tangent": "outer-tangents",
    "compass alone": "midpoint-compass",
    "congruent angles": "copy-an-angle",
    "copy an angle": "copy-an-angle",
    "diagonal": "square-on-a-diagonal",
    "divide a segment": "third-of-a-segment",
    "equilateral triangle": "equilateral-triangle",
    "euler circle": "nine-point-circle",
    "excenter": "excircle",
    "excircle": "excircle",
    "fermat point": "fermat-point",
    "fixed compass": "perpendicular-with-one-opening",
    "geometric mean": "geometric-mean",
    "golden ratio": "golden-section",
    "harmonic": "harmonic-conjugate",
    "height": "foot-of-an-altitude",
    "hexagon": "hexagon-in-a-circle",
    "hypotenuse": "isosceles-right",
    "incenter": "incircle",
    "incircle": "incircle",
    "inscribed circle": "incircle",
    "intercept theorem": "third-of-a-segment",
    "inversion": "inverse",
    "isosceles": "isosceles-right",
    "kite": "kite",
    "locus": "apollonius",
    "median": "centroid",
    "midline": "midline",
    "midpoint": "midpoint",
    "mirror image": "mirror-a-point",
    "nine-point circle": "nine-point-circle",
    "orthocenter": "orthocentre",
    "parallel line": "parallel-through-a-point",
    "parallelogram": "parallelogram",
    "pentagon": "pentagon-in-a-circle",
    "perpendicular bisector": "perpendicular-bisector",
    "point reflection": "point-reflection",
    "power of a point": "radical-axis",
    "radical axis": "radical-axis",
    "ratio": "apollonius",
    "rectangle": "rectangle",
    "rhombus": "rhombus",
    "right angle": "perpendicular-at-a-point",
    "shortest path": "shortest-path",
    "side angle side": "triangle-sas",
    "square": "square-in-a-circle",
    "sss": "triangle-sss",
    "straightedge alone": "parallel-ruler",
    "tangent": "tangent-at-a-point",
    "thales": "tangent-from-a-point",
    "trapezoid": "trapezium",
    "trisect": "third-of-a-segment",
    "I.1": "equilateral-triangle",
    "IV.11": "pentagon-in-a-circle",
}


@pytest.mark.parametrize(("words", "key"), INDEX.items())
def test_a_term_of_a_textbooks_index_finds_its_task(words, key):
    assert key in {task.key for task in found_by(words)}


def test_what_nobody_teaches_finds_nothing():
    assert found_by("logarithm of a banana") == []
