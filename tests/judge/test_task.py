"""A task that breaks a rule is told where and what to do."""

import pytest

from tests.judge.test_judging import AB, task
from widepin.documents.reading import Unreadable
from widepin.judge.task import MAX_CONDITIONS, MAX_TERMS, MAX_WANTED
from widepin.school.tasks.library.notation import rel

PARALLEL = rel("parallel", "m", "A-B")
WRONG = {
    # name: (given, wanted, conditions, model, place, words)
    "nothing wanted": (AB, [], [], "", "wanted", "name at least one object"),
    "wanted twice": (AB, ["line m", "line m"], [PARALLEL], "", "wanted[1].name", "rename one"),
    "a given name wanted": (AB, ["point A"], [], "", "wanted[0].name", "choose another name"),
    "no kind": (AB, ["curve m"], [], "", "wanted[0].kind", "use point, line"),
    "no relation": (AB, ["line m"], [rel("near", "m", "A-B")], "", "conditions[0].rel", "use one of same, on"),
    "too few terms": (AB, ["line m"], [rel("parallel", "m")], "", "conditions[0].of", "takes 2 terms"),
    "an unknown name": (AB, ["line m"], [rel("parallel", "m", "A-Z")], "", "conditions[0].of[1]", "there is no Z"),
    "a wrong kind": (AB, ["line m"], [rel("on", "m", "A-B")], "", "conditions[0].of[0]", "point"),
    "no circle to touch": (AB, ["line m"], [rel("tangent", "m", "A-B")], "", "conditions[0].of", "needs a circle"),
    "two kinds that are never the same": (AB, ["line m"], [rel("same", "m", "A")], "", "conditions[0].of", "one kind"),
    "a ratio of nothing": (AB, ["point P"], [rel("ratio", "A-P", "A-B")], "", "conditions[0].is", "[n, d]"),
    "a model made from nothing": (AB, ["line m"], [PARALLEL], "m parallel g A", "model[0].from[0]", "earlier step"),
    "many wanted": (AB, [f"line m{n}" for n in range(MAX_WANTED + 1)], [], "", "wanted", "ask for fewer"),
    "many conditions": (AB, ["line m"], [PARALLEL] * (MAX_CONDITIONS + 1), "", "conditions", "ask for less"),
    "many terms": (AB, ["point P"], [rel("distinct", *["P"] * (MAX_TERMS + 1))], "", "conditions[0].of", "split"),
}


@pytest.mark.parametrize(("given", "wanted", "conditions", "model", "place", "words"), WRONG.values(), ids=WRONG)
def test_a_wrong_task_says_where_and_what_to_do(given, wanted, conditions, model, place, words):
    with pytest.raises(Unreadable) as wrong:
        task(given, wanted, conditions, model)
    assert wrong.value.place == place
    assert words in wrong.value.remedy and "\n" not in str(wrong.value)


@pytest.mark.parametrize(
    ("tool", "opening", "words"),
    [
        ("circle", ["A", "B"], "only circle_radius can"),
        ("circle_radius", ["A", "Z"], "'Z' is no given point"),
        ("circle_radius", ["A", "A"], "named twice"),
        ("circle_radius", ["AB"], "must be two given points"),
    ],
)
def test_an_opening_is_that_of_two_given_points(tool, opening, words):
    with pytest.raises(Unreadable) as wrong:
        task(AB, ["line m"], [PARALLEL], tools=[{"tool": tool, "opening": opening}])
    assert wrong.value.place == "tools[0].opening" and words in wrong.value.remedy


def test_as_much_as_may_be_asked_is_accepted():
    one = task(AB, [f"line m{n}" for n in range(MAX_WANTED)], [rel("parallel", "m0", "A-B")] * MAX_CONDITIONS)
    assert len(one.wanted) == MAX_WANTED and len(one.conditions) == MAX_CONDITIONS
