"""Verdicts: exact is exact, rare failures are found, the format's rules are kept."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.amount import many
from widepin.documents.formats.bundle import read_bundle
from widepin.documents.formats.task import read_task, read_work
from widepin.documents.formats.verdict import judge_document, read_verdict, write_verdict
from widepin.documents.wording.rule_words import worded
from widepin.judge.judging import judge
from widepin.school.demo.tasks import TASKS
from widepin.school.tasks.library.notation import rel
from widepin.school.tasks.library.notation import steps as from_lines

from .test_cases import CASES

AB = "A free_point at=1,1\nB free_point at=7,2"
ALL = ["points", "line", "ray", "segment", "circle", "circle_radius", "midpoint", "perpendicular"]


def task(given, wanted, conditions, model="", tools=ALL, **more):
    return read_task(
        {
            "format": "widepin.task/1",
            "given": from_lines(given),
            "tools": tools,
            "model": from_lines(model),
            "wanted": [
                one if isinstance(one, dict) else dict(zip(("kind", "name"), one.split(), strict=True))
                for one in wanted
            ],
            "conditions": conditions,
            **more,
        }
    )


def verdict(of, steps, answer=None):
    return judge_document(of, {"steps": from_lines(steps), "answer": answer})


MIDDLE = task(AB, ["point P"], [rel("same", "P", "model:M")], "M midpoint A B")
THIRD = task(AB, ["point P"], [rel("on", "P", "A-B"), rel("ratio", "A-P", "A-B") | {"is": [1, 3]}])


class TestExactness:
    def test_thirty_halvings_and_thirty_doublings_are_sound(self):
        steps, last = ["M midpoint A B"], "M"
        for n in range(30):
            steps.append(f"h{n} midpoint A {last}")
            last = f"h{n}"
        for n in range(30):
            steps += [f"l{n} line A {last}", f"c{n} circle {last} A", f"d{n} intersection l{n} c{n} other_than=A"]
            last = f"d{n}"
        assert verdict(MIDDLE, "\n".join(steps), {"P": last}).outcome == "sound"

    def test_a_chain_whose_rounding_blows_up_is_sound(self):
        """Thirty times a point is brought within a hair of A, mirrored and brought back."""
        steps, last = ["C free_point at=2.3,5.1"], "C"
        for n in range(30):
            steps.append(f"h{n} midpoint A {last}")
            last = f"h{n}"
        steps += [f"p line A {last}", "q perpendicular p A", f"c circle A {last}", "E intersection q c pick=2"]
        last = "E"
        for n in range(30):
            steps += [f"c{n} circle {last} A", f"d{n} intersection q c{n} other_than=A"]
            last = f"d{n}"
        steps += [f"z circle A {last}", "s line A C", "X intersection s z pick=2"]
        same = task(
            AB,
            ["point P"],
            [rel("equal_length", "A-P", "A-C0")],
            tools=ALL,
            start=from_lines("C0 free_point at=2.3,5.1"),
        )
        steps = [step.replace(" C", " C0") for step in steps if not step.startswith("C ")]
        assert verdict(same, "\n".join(steps), {"P": "X"}).outcome == "sound"

    def test_forty_nested_midpoints_near_a_third_are_approximate(self):
        steps, a, b = [], "B", "A"
        for n in range(40):
            steps.append(f"m{n} midpoint {a} {b}")
            a, b = b, f"m{n}"
        found = verdict(THIRD, "\n".join(steps), {"P": "m39"})
        assert found.outcome == "approximate" and found.certificate is None

    def test_a_intersection_at_the_very_end_of_a_segment_exists(self):
        end = task(AB + "\ns segment A B", ["point P"], [rel("same", "P", "model:M")], "M midpoint B B")
        assert verdict(end, "c circle A B\nX intersection c s pick=2").outcome == "sound"

    def test_touching_circles_meet_everywhere(self):
        touching = "M midpoint A B\nc circle A M\nd circle B M\nP intersection c d"
        assert verdict(MIDDLE, touching, {"P": "P"}).outcome == "sound"

    def test_an_accepted_work_says_to_how_many_digits(self):
        found = verdict(MIDDLE, "M midpoint A B")
        assert found.certificate.digits == 60 and found.certificate.positions >= 5


class TestDragging:
    def test_a_helper_that_may_come_too_close_makes_a_work_fragile(self):
        found = verdict(
            TASKS_BY_NAME["Centre line of a sill"],
            "C free_point at=7,1\nc circle A C\nd circle_radius B A C\nD intersection c d pick=1\n"
            "E intersection c d pick=2\nm line D E",
        )
        assert found.outcome == "fragile" and found.method_holds is False
        assert found.breaks.happens == "undefined" and found.breaks.object == "D"

    def test_a_intersection_that_jumps_is_switching_and_its_method_holds(self):
        path = next(path for path in CASES if path.stem == "angle-bisector")
        bundle = read_bundle(path)
        found = judge_document(bundle.task, bundle.works[0][1])
        assert found.outcome == "switching" and found.method_holds is True

    def test_positions_where_the_model_is_undefined_do_not_count(self):
        given = "A free_point at=2,2\nB free_point at=8,3\nC free_point at=4,7\nl line A B"
        inside = task(
            given,
            ["point P"],
            [rel("on", "P", "l"), rel("equal_length", "C-P", "A-B")],
            "c circle_radius C A B\nP intersection c l pick=1",
        )
        steps = "c circle_radius C A B\nP intersection c l pick=1"
        assert verdict(inside, steps).outcome == "sound"
        unguarded = task(given, ["point P"], [rel("on", "P", "l"), rel("equal_length", "C-P", "A-B")])
        assert verdict(unguarded, steps).outcome == "fragile"

    def test_the_break_is_where_it_really_fails(self):
        bundle = read_bundle(next(path for path in CASES if path.stem == "orthocentre"))
        found = judge_document(bundle.task, bundle.works[1][1])
        moved = {drag.id: drag.end for drag in found.breaks.drags}
        assert len(moved) == 1 and found.breaks.by == "given"
        a, b, c = (moved.get(step.id, step.at) for step in bundle.task.given[:3])
        angles = [angle(*corners) for corners in ((b, a, c), (a, b, c), (a, c, b))]
        assert max(angles) > math.pi / 2, "the altitudes' feet only leave obtuse triangles"

    def test_a_point_by_eye_that_is_exact_as_drawn_is_still_by_eye(self):
        found = verdict(MIDDLE, "P free_point at=4,1.5")
        assert found.outcome == "eyeballed"


def angle(p, vertex, q):
    u, v = [(end[0] - vertex[0], end[1] - vertex[1]) for end in (p, q)]
    return math.acos((u[0] * v[0] + u[1] * v[1]) / (math.hypot(*u) * math.hypot(*v)))


class TestAnswers:
    TWO = "M midpoint A B\nN free_point at=4,1.5"

    def test_the_best_of_several_answers_counts(self):
        assert verdict(MIDDLE, self.TWO).answer == {"P": "M"}

    def test_a_declared_answer_is_the_only_one_judged(self):
        assert verdict(MIDDLE, self.TWO, {"P": "N"}).outcome == "eyeballed"

    @pytest.mark.parametrize(
        ("answer", "said"),
        [
            ({"P": "Z"}, "not on the board"),
            ({"Q": "M"}, "does not ask for"),
            ({"P": "l"}, "must be a point"),
            ({"P": "A"}, "is given"),
            ({}, "does not say"),
        ],
    )
    def test_an_answer_that_is_not_well_formed_is_refused(self, answer, said):
        found = verdict(MIDDLE, self.TWO + "\nl line A N", answer)
        assert found.outcome == "refused" and said in worded(found.refusal.broken)

    def test_seven_wanted_points_among_sixty_objects_are_found(self):
        names = ["P1", "P2", "P3", "P4", "P5", "P6"]
        rose = task(
            "O free_point at=5,5\nA free_point at=8,6\nk circle O A",
            [{"name": name, "kind": "point", "given": True} for name in ["Q", *names]],
            [
                *(rel("on", name, "k") for name in names),
                rel("distinct", *names),
                rel("same", "Q", "O"),
                rel("equal_length", "P1-P2", "P2-P3", "P3-P4", "P4-P5", "P5-P6", "P6-P1"),
            ],
        )
        steps = [
            "a circle A O",
            "B intersection a k pick=1",
            "b circle B O",
            "C intersection b k other_than=A",
            "c circle C O",
            "D intersection c k other_than=B",
            "d circle D O",
            "E intersection d k other_than=C",
            "e circle E O",
            "F intersection e k other_than=D",
        ]
        pairs = [(p, q) for p in "abcde" for q in "abcde" if p < q]
        steps += [f"X{n}{pick} intersection {p} {q} pick={pick}" for n, (p, q) in enumerate(pairs) for pick in (1, 2)]
        steps += [f"Y{n} midpoint X{n}1 X{n}2" for n in range(10)] + [f"Z{n} midpoint O Y{n}" for n in range(10)]
        found = verdict(rose, "\n".join(steps))
        assert found.outcome == "sound" and found.answer["Q"] == "O" and not found.stopped


class TestRefusals:
    def test_a_tool_used_too_often(self):
        once = task(AB, ["point P"], [rel("midpoint", "P", "A", "B")], tools=[{"tool": "midpoint", "most": 1}])
        found = verdict(once, "P midpoint A B\nQ midpoint A P")
        assert found.outcome == "refused" and found.refusal.step == "Q" and found.counts.moves == 2

    def test_intersections_are_always_allowed_and_points_only_as_points(self):
        bare = task(AB + "\nk circle A B", ["point P"], [rel("on", "P", "k")], tools=["line"])
        assert verdict(bare, "l line A B\nP intersection l k other_than=B").outcome == "sound"
        assert verdict(bare, "P point_on k at=1,9").outcome == "refused"

    def test_other_than_a_point_that_is_not_on_both_is_refused(self):
        found = verdict(MIDDLE, "C free_point at=3,3\nc circle A B\nd circle B A\nP intersection c d other_than=C")
        assert found.outcome == "refused" and found.refusal.step == "P"

    def test_other_than_a_point_that_is_on_both_by_theorem_is_accepted(self):
        steps = "c circle A B\nd circle B A\nD intersection c d pick=1\nM midpoint A B\nl line D M\nE intersection l d other_than=D"
        assert verdict(MIDDLE, steps).outcome == "sound"
        other = "l line A B\nM midpoint A B\nc circle M A\nX intersection c l other_than=B\nP midpoint X B"
        assert verdict(MIDDLE, other).outcome == "sound"

    @pytest.mark.parametrize(
        "work",
        [
            {},
            {"steps": 3},
            {"steps": [{"id": "x"}]},
            {"steps": [5]},
            {"steps": [{"id": "x", "make": "line", "from": "A"}]},
            {"steps": [{"id": "x", "make": "free_point", "at": [1, float("nan")]}]},
            {"steps": [{"id": "x", "make": "free_point", "at": ["1", 2]}]},
            {"steps": [{"id": "x", "make": "free_point", "at": [1, 1e308]}]},
            {"steps": [{"id": f"x{n}", "make": "midpoint", "from": ["A", "B"]} for n in range(301)]},
            {"steps": [], "answer": {"P": 3}},
            {"steps": [{"id": "x", "make": "intersection", "from": ["A", "B"], "pick": 1, "other_than": "A"}]},
        ],
    )
    def test_a_work_that_is_not_well_formed_is_refused_with_a_reason(self, work):
        found = judge_document(MIDDLE, work)
        assert found.outcome == "refused" and worded(found.refusal.broken)
        assert read_verdict(write_verdict(found)).outcome == "refused"


TASKS_BY_NAME = {one.title: read_task(one.document()) for one in TASKS}
DEMO = [(one.title, expected, made) for one in TASKS for expected, made in one.solutions]


@pytest.mark.parametrize(("title", "expected", "made"), DEMO, ids=[f"{t}-{e}-{len(m)}" for t, e, m in DEMO])
def test_the_demo_students_get_what_they_deserve(title, expected, made):
    assert verdict(TASKS_BY_NAME[title], made).outcome == expected


SOLUTIONS = [(one, made) for one in TASKS for _, made in one.solutions]


@settings(max_examples=many(12, 200))
@given(
    st.sampled_from(SOLUTIONS),
    st.floats(-50, 50),
    st.floats(-50, 50),
    st.floats(0, 2 * math.pi),
    st.floats(0.2, 5),
    st.booleans(),
)
def test_moving_turning_scaling_and_renaming_leave_the_verdict_alone(solution, x, y, turn, scale, rename):
    one, made = solution
    document = one.document()
    document["given"], own = moved(document["given"], x, y, turn, scale), moved(from_lines(made), x, y, turn, scale)
    document["model"] = moved(document["model"], x, y, turn, scale)
    if rename:
        own = renamed(own, {step["id"] for step in own})
    before = verdict(TASKS_BY_NAME[one.title], made)
    after = judge(read_task(document), read_work({"steps": own}))
    assert (after.outcome, after.counts.moves, after.counts.needed) == (
        before.outcome,
        before.counts.moves,
        before.counts.needed,
    )


def moved(steps, x, y, turn, scale):
    c, s = scale * math.cos(turn), scale * math.sin(turn)
    return [
        step | {"at": [x + c * step["at"][0] - s * step["at"][1], y + s * step["at"][0] + c * step["at"][1]]}
        if "at" in step
        else step
        for step in steps
    ]


def renamed(steps, own):
    def new(id_):
        return f"z_{id_}'" if id_ in own else id_

    changed = []
    for step in steps:
        step = step | {"id": new(step["id"]), "from": [new(id_) for id_ in step.get("from", [])]}
        for choice in ("other_than", "nearest_to", "farthest_from"):
            if choice in step:
                step[choice] = new(step[choice])
        changed.append(step)
    return changed


def test_the_same_work_gets_the_same_verdict_twice():
    one = TASKS_BY_NAME["Splitting a gable"]
    made = TASKS[2].solutions[1][1]
    assert write_verdict(verdict(one, made)) == write_verdict(verdict(one, made))
