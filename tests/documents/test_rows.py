"""Every make and every relation has one row of geometry and one row of words, which everything else is drawn from."""

import re
from itertools import combinations

import pytest

from widepin.documents.formats.construction import read_steps
from widepin.documents.wording.make_words import MAKE_WORDS, WHICH, WHY_UNDEFINED, filled
from widepin.documents.wording.relation_words import RELATION_WORDS
from widepin.documents.wording.words import TOOL_WORDS, Words, instruction
from widepin.judge.conditions import RELATIONS, RelationName
from widepin.judge.task import TOOLS, Condition, Task, Wanted
from widepin.plane.arrays import Arrays
from widepin.plane.figure import Figure, is_defined
from widepin.plane.makes import MAKES, By, MakeName, Undefined
from widepin.plane.rows import complete
from widepin.plane.shapes import Kind, Line
from widepin.plane.steps import Step
from widepin.school.tasks.library.notation import steps as from_lines


def entries(template):
    """The entries that a template names, in their order, and whether it names anything else."""
    blanks = re.findall(r"\{(\w+)\}", template)
    return [int(entry) for blank in blanks if blank.isdigit() for entry in blank], set(blanks)


def test_tables_are_complete():
    assert list(MAKES) == list(MAKE_WORDS) == [make.value for make in MakeName]
    assert list(RELATIONS) == list(RELATION_WORDS) == [relation.value for relation in RelationName]
    assert set(WHY_UNDEFINED) == {why.value for why in Undefined}
    assert set(TOOLS) <= set(TOOL_WORDS)


def test_a_missing_or_foreign_row_is_no_table():
    with pytest.raises(LookupError, match="TABLE: a row is missing for reflection of MakeName"):
        complete("TABLE", MakeName, {name: 1 for name in MakeName if name != "reflection"})
    with pytest.raises(LookupError, match="TABLE: RelationName has no member gable"):
        complete("TABLE", RelationName, dict.fromkeys([*RelationName, "gable"], 1))


@pytest.mark.parametrize("name", MAKES)
def test_words_of_a_make_name_all_that_it_is_made_from(name):
    make, row = MAKES[name], MAKE_WORDS[name]
    every = list(range(len(make.sources)))
    assert sorted(entries(row.told)[0]) == every
    assert bool(row.card) == bool(row.sentence) == bool(row.icon) == (make.inputs == 0)
    if row.sentence:
        assert sorted(entries(row.sentence)[0]) == every
    for template in filter(None, (row.called, row.called_from)):
        assert entries(template)[0][: len(every)] == every[: len(entries(template)[0])]
    assert row.tool.replace("_", " ") == row.tool and "_" not in row.told + row.card + row.sentence


@pytest.mark.parametrize("name", MAKES)
def test_a_step_is_told_with_all_of_its_names(name):
    step = Step("X", name, tuple("PQRST"[: len(MAKES[name].sources)]))
    told = instruction(step)
    assert told.startswith("X: ") and "{" not in told and all(source in told for source in step.sources)


@pytest.mark.parametrize("choice", WHICH)
def test_which_intersection_is_meant_is_told(choice):
    told = filled(MAKE_WORDS["intersection"].told, ["c", "d"], "Q", choice)
    assert told.startswith("intersection of c and d") and ("Q" in told) == (choice != "pick")


@pytest.mark.parametrize("name", RELATIONS)
def test_words_of_a_relation_name_all_of_its_terms(name):
    relation, row = RELATIONS[name], RELATION_WORDS[name]
    for template in (row.clause, row.sentence):
        named, blanks = entries(template)
        assert ("all" in blanks) == bool(relation.many)
        assert sorted(named) == list(range(relation.fixed))
        assert ({"n", "d"} <= blanks) == (name == "ratio")


TERMS = {
    "point": "ABC",
    "pair": ["AB", "CD"],
    "triple": ["ABC", "BCD"],
    "straight": "ghi",
    "curve": "gk",
    "object": "AB",
}


@pytest.mark.parametrize("name", RELATIONS)
def test_a_condition_is_a_clause_of_its_terms(name):
    relation = RELATIONS[name]
    roles = relation.roles(relation.fewest)
    terms, left = [], {role: list(TERMS[role]) for role in set(roles)}
    for role in roles:
        term = left[role].pop(0)
        terms.append(tuple(term) if role in ("pair", "triple") else term)
    given = read_steps(
        from_lines(
            "A free_point at=0,0\nB free_point at=4,0\nC free_point at=1,3\nD free_point at=5,5\ng line A B\nh line B C\ni line A C\nk circle A B"
        )
    )
    task = Task("", given, (), (Wanted("X", "point"),), ())
    said = Words(task).condition(Condition(name, tuple(terms), (1, 3) if name == "ratio" else None))
    assert "{" not in said and all("".join(term) in said for term in terms) or name in ("midpoint", "ratio")
    if name == "ratio":
        assert said == "AB : CD = 1 : 3"
    if name == "collinear":
        assert said == "A, B and C lie on one line"
    if name == "equal_area":
        assert said == "the triangles ABC and BCD have equal areas"


# --- the geometry that rows state, against what is computed

FIGURE = "A free_point at=0.3,0.4\nB free_point at=4,1\nC free_point at=1.5,3.5\nD free_point at=5,2.5\nE free_point at=2,6\ng line A B"


def made_by(name):
    """A figure in which a make is used on plain objects."""
    sources = [
        "g" if Kind.POINT not in role else point for role, point in zip(MAKES[name].sources, "ABCDE", strict=False)
    ]
    return Figure(read_steps(from_lines(FIGURE)) + (Step("X", name, tuple(sources)),))


PLAIN = [name for name, make in MAKES.items() if make.compute is not None]


@pytest.mark.parametrize("name", PLAIN)
def test_what_an_object_passes_through_lies_on_it(name):
    figure = made_by(name)
    make = MAKES[name]
    if make.gives is Kind.POINT:
        assert make.through == ()
        return
    on = [Step(f"Y{entry}", "point_on", ("X",), at=(0, 0)) for entry in make.through]
    figure = Figure([*(node.step for node in figure.nodes), *on])
    position, shapes = figure.drawn()
    for entry, step in zip(make.through, on, strict=True):
        source = shapes[figure.nodes[figure.index["X"]].sources[entry]]
        nearest = Figure(
            [
                *(node.step for node in figure.nodes[: -len(on)]),
                Step("Z", "point_on", ("X",), at=(float(source[0]), float(source[1]))),
            ]
        )
        _, found = nearest.drawn()
        assert found[-1] == pytest.approx(source, abs=1e-9), step


PLACES = {0: (0.0, 0.0), 1: (4.0, 1.0), 2: (1.0, 3.0), 3: (5.0, 4.0), 4: (2.0, 6.0)}
"""Where what a make is used on lies, by its entry."""


def exists(name, places):
    """Whether a make gives something where its points lie at these places; a line is always the same one."""
    lines = "\n".join(f"{'ABCDE'[n]} free_point at={x},{y}" for n, (x, y) in places.items())
    given = read_steps(from_lines(f"{lines}\nY free_point at=4,1\nZ free_point at=1,3\ng line Y Z"))
    sources = ["g" if Kind.POINT not in role else "ABCDE"[entry] for entry, role in enumerate(MAKES[name].sources)]
    figure = Figure((*given, Step("X", name, tuple(sources))))
    with Arrays.quiet():
        return bool(is_defined(figure.drawn()[1][-1]))


@pytest.mark.parametrize("name", PLAIN)
def test_a_make_vanishes_just_where_points_coincide_that_must_be_apart(name):
    make = MAKES[name]
    assert exists(name, PLACES)
    points = [entry for entry, role in enumerate(make.sources) if Kind.POINT in role]
    for pair in combinations(points, 2):
        there = exists(name, PLACES | {pair[1]: PLACES[pair[0]]})
        assert there == (pair not in make.apart), f"{pair} of {name}"


@pytest.mark.parametrize(("name", "pair"), [(name, pair) for name in PLAIN for pair in MAKES[name].trivial])
def test_what_is_trivial_gives_a_point_that_is_there_or_a_line_through_two(name, pair):
    make, places = MAKES[name], PLACES | {pair[1]: PLACES[pair[0]]}
    lines = "\n".join(f"{'ABCDE'[n]} free_point at={x},{y}" for n, (x, y) in places.items())
    sources = tuple("ABCDE"[: len(make.sources)])
    figure = Figure((*read_steps(from_lines(lines)), Step("X", name, sources)))
    found = figure.drawn()[1][-1]
    points = [places[entry] for entry in range(len(sources))]
    if make.gives is Kind.POINT:
        assert any(found == pytest.approx(point) for point in points)
    else:
        assert isinstance(found, Line)
        on = [abs((x - found.x) * found.dy - (y - found.y) * found.dx) < 1e-9 for x, y in set(points)]
        assert sum(on) > 1


@pytest.mark.parametrize("name", PLAIN)
def test_why_something_is_undefined_is_so(name):
    """What is said of the entries that span it is so: they are one point, lie on one line, or make no angle."""
    make = MAKES[name]
    match make.undefined:
        case Undefined.ONE_POINT:
            assert list(make.apart) == [make.spanned]
        case Undefined.IN_A_ROW:
            row = dict(zip(make.spanned, ((2.0, 0.5), (0.0, 0.0), (-4.0, -1.0)), strict=True))
            assert not exists(name, PLACES | row)
        case Undefined.NO_ANGLE:
            a, vertex, b = make.spanned
            assert make.apart == ((a, vertex), (vertex, b))
            row = {a: (2.0, 0.5), vertex: (0.0, 0.0), b: (-4.0, -1.0)}
            assert exists(name, PLACES | row)  # a straight angle is one
        case Undefined.NEVER:
            assert not make.spanned and not make.apart
        case Undefined.APART:
            raise AssertionError("said of intersections alone")


@pytest.mark.parametrize("name", [name for name in PLAIN if MAKES[name].symmetric])
def test_symmetric_sources_may_trade_places(name):
    figure = made_by(name)
    step = figure.nodes[-1].step
    turned = Figure([*(node.step for node in figure.nodes), Step("Y", name, step.sources[::-1])])
    _, shapes = turned.drawn()
    one, other = shapes[-2:]
    if MAKES[name].gives is Kind.LINE:
        assert isinstance(one, Line) and isinstance(other, Line)
        cross = one.dx * other.dy - one.dy * other.dx
        assert cross == pytest.approx(0, abs=1e-9)
    elif MAKES[name].gives is not Kind.SEGMENT:
        assert one == pytest.approx(other)


def test_everything_that_counts_has_a_price():
    assert {name for name, make in MAKES.items() if make.price is By.NOTHING} == {
        name for name, make in MAKES.items() if not make.counts
    }
