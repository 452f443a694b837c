"""Modules of the board that can be tested alone, in the browser that runs them."""

import pytest


@pytest.fixture
def run(page, served):
    """Runs a script with a module's exports as ``m``."""
    page.goto(f"{served}/sign-in")
    return lambda module, script, argument=None: page.evaluate(
        f"async (x) => {{ const m = await import('/static/{module}'); {script} }}", argument
    )


def test_steps_of_two_windows_get_names_of_their_own(run):
    pending = [
        {"key": "1", "operation": {"op": "add", "step": {"id": "c", "make": "circle", "from": ["A", "B"]}}},
        {
            "key": "2",
            "operation": {
                "op": "add",
                "step": {"id": "D", "make": "intersection", "from": ["c", "k"], "other_than": "A"},
            },
        },
        {"key": "3", "operation": {"op": "move", "points": {"D": [1, 2]}}},
        {"key": "4", "operation": {"op": "dress", "id": "c", "dress": {"hidden": True}}},
    ]
    script = (
        "return m.rebased(x, ['A', 'B', 'k', 'c', 'D'], (make, taken) => m.nextId(make === 'intersection', taken));"
    )
    operations = [one["operation"] for one in run("board/log.js", script, pending)]
    assert operations[0]["step"] == {"id": "d", "make": "circle", "from": ["A", "B"]}
    assert operations[1]["step"] == {"id": "C", "make": "intersection", "from": ["d", "k"], "other_than": "A"}
    assert operations[2]["points"] == {"C": [1, 2]} and operations[3]["id"] == "d"


def test_folding_is_the_same_as_in_python(run):
    from tests.judge.test_judging import TASKS_BY_NAME
    from widepin.school.state import fold

    add = [{"op": "add", "step": {"id": id_, "make": "circle", "from": ["A", "B"]}} for id_ in "cde"]
    back, again = {"op": "take back"}, {"op": "bring back"}
    logs = [add, [*add, back], [*add, back, back, again], [add[0], back, add[1], again], [back, again, add[2]]]
    folded = run("board/log.js", "return x.map((log) => m.fold(log).done.map(({ step }) => step.id));", logs)
    assert folded == [[step.id for step in fold(TASKS_BY_NAME["Centre line of a sill"], log).steps] for log in logs]


def test_a_view_converts_there_and_back_and_zooms_about_a_place(run):
    script = """
      const view = new m.View(50, -1, 9).zoomed(1.7, 200, 100).panned(30, -20);
      const there = view.toScreen(...view.toPaper(123, 45));
      const before = new m.View(50, -1, 9), after = before.zoomed(2, 200, 100);
      return [there, before.toPaper(200, 100), after.toPaper(200, 100)];"""
    there, before, after = run("figure/view.js", script)
    assert there == pytest.approx([123, 45]) and before == pytest.approx(after)


@pytest.mark.parametrize(
    ("kind", "shape", "seen"),
    [
        ("segment", [1, 1, 2, 0], True),
        ("segment", [-9, 1, 2, 0], False),
        ("ray", [-9, 1, 2, 0], True),
        ("ray", [-9, 1, -2, 0], False),
        ("line", [-9, 1, -2, 0], True),
        ("line", [1, 90, 1, 0], False),
        ("line", [1, 90, 0, 1], True),
    ],
)
def test_straights_are_clipped_to_the_window(run, kind, shape, seen):
    script = """
      const { View } = await import('/static/figure/view.js');
      return m.visiblePart(x[0], x[1], new View(50, 0, 8), 400, 400);"""
    part = run("figure/drawing.js", script, [kind, shape])
    assert (part is not None) == seen
    if seen:
        assert all(-21 <= value <= 421 for value in part)
