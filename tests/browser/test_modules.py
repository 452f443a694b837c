"""Modules of the board that can be tested alone, in the browser that runs them."""

import json
import random

import pytest

from widepin.documents.formats.construction import write_step


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
    operations = [one["operation"] for one in run("board/construction/rebasing.js", script, pending)]
    assert operations[0]["step"] == {"id": "d", "make": "circle", "from": ["A", "B"]}
    assert operations[1]["step"] == {"id": "C", "make": "intersection", "from": ["d", "k"], "other_than": "A"}
    assert operations[2]["points"] == {"C": [1, 2]} and operations[3]["id"] == "d"


def test_results_of_a_class_tool_are_named_as_steps_are_and_its_helpers_after_the_first(run):
    steps = [
        {"id": "c", "make": "circle", "from": ["O", "A"]},
        {"id": "X", "make": "intersection", "from": ["c", "g"], "pick": 1},
        {"id": "Y", "make": "intersection", "from": ["c", "g"], "other_than": "X"},
    ]
    takes = [{"name": name, "kind": "point"} for name in "OA"] + [{"name": "g", "kind": "straight"}]
    proven = {"name": "Two marks", "takes": takes, "steps": steps, "gives": ["X", "Y"], "moves": 1}
    script = """
      const { nextId } = await import('/static/board/construction/rebasing.js');
      return m.useOf(x, ['P', 'Q', 'h'], ['P', 'Q', 'h', 'C', 'D1'], (make, taken) => nextId(make === 'intersection', taken));"""
    use = run("board/construction/uses.js", script, proven)
    assert use["gives"] == ["A", "B"] and [step["id"] for step in use["steps"]] == ["A1", "A", "B"]
    assert use["steps"][2] == {"id": "B", "make": "intersection", "from": ["A1", "h"], "other_than": "A"}


def test_folding_is_the_same_as_in_python(run):
    from tests.judge.test_judging import TASKS_BY_NAME
    from widepin.school.works.history import replay

    add: list[dict] = [{"op": "add", "step": {"id": id_, "make": "circle", "from": ["A", "B"]}} for id_ in "cde"]
    back, again = {"op": "undo"}, {"op": "redo"}
    logs: list[list[dict]] = [
        add,
        [*add, back],
        [*add, back, back, again],
        [add[0], back, add[1], again],
        [back, again, add[2]],
    ]
    folded = run("figure/log.js", "return x.map((log) => m.replay(log).done.map(({ step }) => step.id));", logs)
    assert folded == [[step.id for step in replay(TASKS_BY_NAME["Centre line of a sill"], log).steps] for log in logs]


def test_the_board_of_a_log_is_the_same_as_in_python(run):
    """Random logs of operations that fit, with everything in them: added, used, removed, dragged, dressed, taken back."""
    from widepin.school.works.history import replay

    task, logs = random_logs(12)
    setting = {"given": [write_step(step) for step in task.given], "start": []}
    script = """return x.logs.map((log) => {
      const { given, own, measures, notes } = m.stepsOf(x.setting, m.replay(log).done);
      return { given, own: own.map(({ within, ...step }) => step), notes: notes.map(({ note, ...rest }) => rest) };
    });"""
    for log, shown in zip(logs, run("figure/log.js", script, {"setting": setting, "logs": logs}), strict=True):
        state = replay(task, log)
        assert shown["given"] == state.documents(state.given)
        assert shown["own"] == state.documents(state.steps)
        assert shown["notes"] == list(state.board.notes.values())


def random_logs(count):
    """A task, and random logs on it in which every operation fits; some use a class tool of several steps."""
    from widepin.documents.formats.operations import read_operation
    from widepin.documents.formats.task import read_task
    from widepin.judge.costs.class_tools import class_tool_geometry
    from widepin.school.tasks.library import LIBRARY
    from widepin.school.works.history import History, OperationRefused

    rng = random.Random(8)
    centre = read_task(LIBRARY["perpendicular-bisector"].document())
    rule = class_tool_geometry(centre.given, centre.model, ["m"])
    task = read_task(LIBRARY["circumcircle"].document())
    logs = []
    for _ in range(count):
        state, log = History(task, {"Rule": (rule, 1)}), []
        for number in range(60):
            operation = random_operation(rng, list(state.kinds()), rule, number)
            try:
                read = read_operation(operation)
                state.check(read)
            except OperationRefused:
                continue
            state.apply(read)
            log.append(operation)
        assert state.steps or state.undone
        logs.append(log)
    assert {one["op"] for log in logs for one in log} >= {"add", "use", "remove", "move", "dress", "note", "undo"}
    return task, logs


def random_operation(rng, ids, rule, number):
    def one():
        return rng.choice(ids)

    def place():
        return [round(rng.uniform(0, 9), 2), round(rng.uniform(0, 9), 2)]

    new = f"{rng.choice('efgEFG')}{rng.choice(['', number])}"
    made = [f"{new}_{place}" for place in range(len(rule.steps))]
    sources = [one(), one()]
    uses = {"op": "use", "class_tool": "Rule", "from": sources, "gives": list(rule.given_by(made)), "moves": 1}
    joined = {"joined": True} if rng.random() < 0.3 else {}
    return rng.choice(
        [
            {"op": "add", "step": {"id": new, "make": "free_point", "at": place()}},
            {"op": "add", "step": {"id": new, "make": "circle", "from": sources}, **joined},
            uses | {"steps": [write_step(step) for step in rule.made(sources, made)]},
            {"op": "remake", "step": {"id": one(), "make": "free_point", "at": place()}},
            {"op": "remake", "step": {"id": one(), "make": "midpoint", "from": sources}, **joined},
            {"op": "remove", "id": one()},
            {"op": "move", "points": {one(): place()}, **joined},
            {"op": "dress", "id": [one(), one()], "dress": {"hidden": rng.random() < 0.5}},
            {"op": "note", "note": rng.choice("xyz"), "text": rng.choice(["", "a word"]), "at": place()},
            {"op": "undo"},
            {"op": "redo"},
        ]
    )


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
def test_lines_are_clipped_to_the_window(run, kind, shape, seen):
    script = """
      const { View } = await import('/static/figure/view.js');
      return m.visiblePart(x[0], x[1], new View(50, 0, 8), 400, 400);"""
    part = run("figure/outlines.js", script, [kind, shape])
    assert (part is not None) == seen
    if seen:
        assert all(-21 <= value <= 421 for value in part)


def test_undefined_is_passed_on_by_every_tape_in_the_browser(run):
    """Each tape with each of its sources undefined: no coordinate of the result is a number."""
    from tests.plane.test_undefined import VARIANTS, kinds_of, sources_of
    from widepin.plane.toolbook import tool_book

    plays = []
    for variant in VARIANTS.values():
        for gone in range(len(kinds_of(variant))):
            shapes, own = sources_of(variant, gone)
            inputs = [None if x != x else x for shape in shapes for x in shape] + own
            plays.append([variant.key, inputs])
    script = """
      const book = new m.ToolBook(x.book);
      return x.plays.map(([key, inputs]) => Array.from(book.play(key, inputs.map((one) => one ?? NaN))).map(Number.isFinite));"""
    for (key, _), defined in zip(
        plays, run("figure/tape.js", script, {"book": tool_book(), "plays": plays}), strict=True
    ):
        assert not any(defined), key


@pytest.mark.parametrize(
    ("steps", "said"),
    [
        ("c circle A B\nd circle_radius A A B\nX intersection c d nearest_to=B", "c and d are the same circle here."),
        (
            "c circle A B\nd circle_radius A A B\nX intersection c d farthest_from=C",
            "c and d are the same circle here.",
        ),
        ("c line A B\nd line B A\nX intersection c d", "c and d are the same line here."),
        ("c line A B\nd parallel c C\nX intersection c d", "c and d are parallel."),
        ("c circle A B\nd circle B A\nX intersection c d nearest_to=A", "both are equally far."),
        ("c circle A C\nd circle B C\nM midpoint A A\nl line A M\nX perpendicular l B", "A and M are one point."),
        ("M midpoint A B\nX circle_through A M B", "A, M and B lie on one line."),
        ("X circle_radius C A A", "A and A are one point."),
    ],
)
def test_the_reason_why_something_is_gone(run, steps, said):
    from widepin.school.tasks.library.notation import steps as from_lines
    from widepin.web.drawing.views import book

    given = "A free_point at=0,0\nB free_point at=4,0\nC free_point at=1,3\n"
    script = """
      const { ToolBook } = await import('/static/figure/tape.js');
      const { Figure } = await import('/static/figure/figure.js');
      return m.whyGone(new Figure(new ToolBook(x.book), x.steps), 'X');"""
    assert said in run(
        "board/examining/vanished.js", script, {"book": json.loads(book()[0]), "steps": from_lines(given + steps)}
    )


def test_a_way_is_gone_along_from_its_start_to_its_end_and_no_farther(run):
    way = [[0, 0], [2, 0], [2, 4]]
    script = "return x.shares.map((share) => m.along(x.way, share));"
    at = run("figure/picture.js", script, {"way": way, "shares": [0, 0.25, 0.5, 1, -1e-17]})
    expected = [[0, 0], [1, 0], [2, 0], [2, 4], [0, 0]]
    assert all(one == pytest.approx(there, abs=1e-9) for one, there in zip(at, expected, strict=True))


def test_templates_are_taken_apart(run):
    script = "return m.partsOf(x, (blank) => [blank, '!']);"
    assert run("figure/template.js", script, "{0} lies on {1}") == ["0", "!", " lies on ", "1", "!"]
