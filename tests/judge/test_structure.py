"""Works put side by side by how they are built."""

from widepin.documents.formats.construction import read_steps
from widepin.documents.wording.grouping import method_in_words
from widepin.judge.costs.structure import made_with, needed_by, points_put, structure
from widepin.judge.task import Use
from widepin.school.tasks.library import LIBRARY
from widepin.school.tasks.library.notation import steps as from_lines


def lines(text):
    return read_steps(from_lines(text))


BISECTOR = "c circle A B\nd circle B A\nD intersection c d pick=1\nE intersection c d pick=2\nm line D E"


def tag(text, answer="m", given="AB"):
    return structure(given, lines(text), [answer])


def test_names_order_and_idle_steps_make_no_difference():
    other = "k circle B A\nx circle B A\nl circle A B\nP intersection l k pick=2\nQ intersection l k pick=1\ng line Q P"
    assert tag(BISECTOR) == tag(other, "g")


def test_other_radii_are_another_method():
    assert tag(BISECTOR) != tag(BISECTOR.replace("d circle B A", "d circle_radius B A B"))


def test_which_point_is_the_centre_matters():
    assert tag("c circle A B", "c") != tag("c circle B A", "c")


def test_models_of_the_library_that_differ_are_told_apart():
    tags = {
        key: structure("ABCDEFOPQkgrsabcthq", lines(task.model), [one.split()[1] for one in task.wanted])
        for key, task in LIBRARY.items()
    }
    assert len(set(tags.values())) >= len(tags) - 4  # some ask for the same object in other figures


def test_what_a_construction_is_made_with():
    steps = lines(BISECTOR + "\nz circle D E")
    assert method_in_words(*made_with(steps, needed_by(steps, ["m"]))) == "2 circles and a line"
    both = Use("Both rounds", ("c", "d"), ("c", "d"), 1)
    assert method_in_words(*made_with(steps, needed_by(steps, ["m"]), [both])) == "Both rounds and a line"


def test_places_of_own_points_are_told():
    steps = lines("P free_point at=1,2\nQ point_on s at=3,4\nl line P Q")
    assert points_put(steps) == ((1, 2), (3, 4))
