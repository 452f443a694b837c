"""The task library: every sample solution is sound within its own tools and limit, and teachers find what they look for."""

from dataclasses import replace

import pytest

from widepin.documents.task import read_task
from widepin.judge.judging import judge
from widepin.judge.task import Work
from widepin.judge.verdict import Outcome
from widepin.school.tasks.library import LEVELS, LIBRARY, TOPICS
from widepin.web.sheets.library import found_by


@pytest.fixture(params=list(LIBRARY.values()), ids=list(LIBRARY))
def library_task(request):
    return request.param


def test_a_sample_solution_is_sound_and_within_its_limit(library_task):
    task = read_task(library_task.document())
    verdict = judge(task, Work(task.model), report=False)
    assert (verdict.outcome, verdict.counts.moves) == (Outcome.SOUND, library_task.moves)
    assert verdict.counts.idle == ()


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
