"""The modules of the board that compute or decide, each alone, in the browser that runs them."""

from __future__ import annotations

import json

import pytest

from widepin.school.tasks.library.notation import steps as from_lines

GIVEN = "A free_point at=0,0\nB free_point at=4,0"

TABLE = """
  const { ToolBook } = await import('/static/figure/tape.js');
  const { Store } = await import('/static/board/construction/store.js');
  const { Hand } = await import('/static/board/tools/hand.js');
  const { allowed } = await import('/static/board/construction/tools.js');
  const { View } = await import('/static/figure/view.js');
  const { Pointed } = await import('/static/board/paper/pointed.js');
  const book = new ToolBook(x.book);
  const setting = { given: x.given, start: x.start ?? [], log: (x.log ?? []).map((operation) => ({ operation })), taken: x.taken };
  const store = new Store(book, setting);
  const hand = new Hand();
  const tools = allowed(x.tools ?? [], true, book);
  const tool = (make) => tools.find((one) => one.make === make);
  const view = new View(50, -2, 6);
  const pointed = new Pointed(() => {});
"""


@pytest.fixture
def on_board(run):
    """Runs a script with a store, a hand and a view of 50 pixels a centimetre, whose corner is at (-2, 6)."""
    from widepin.web.drawing.views import book

    def go(module, script, lines="", tools=(), **more):
        log = [{"op": "add", "step": step} for step in from_lines(lines)] if lines else []
        argument = {
            "book": json.loads(book()[0]),
            "given": from_lines(GIVEN),
            "log": [*log, *more.pop("log", [])],
            "tools": [{"tool": tool, "most": None} for tool in tools],
        }
        return run(module, TABLE + script, argument | more)

    return go


class TestStore:
    def test_operations_become_steps_and_a_figure(self, on_board):
        script = (
            "return [store.own.map(({ id }) => id), store.figure.ids, store.moves, [...store.given], store.canUndo];"
        )
        found = on_board("board/construction/store.js", script, "c circle A B\nd circle B A\nC intersection c d pick=1")
        assert found == [["c", "d", "C"], ["A", "B", "c", "d", "C"], 2, ["A", "B"], True]

    def test_what_is_performed_waits_with_whoever_keeps_it(self, on_board):
        script = """
          const pending = [], heard = [];
          store.connect({ pending, add: (operation) => pending.push({ key: 'k', operation }), replace: () => {} });
          store.onPerform(() => heard.push('before'));
          store.onChange(() => heard.push(store.own.length));
          store.perform({ op: 'add', step: { id: 'c', make: 'circle', from: ['A', 'B'] } });
          store.perform({ op: 'undo' });
          return [heard, pending.length, store.canRedo];"""
        assert on_board("board/construction/store.js", script) == [["before", 1, "before", 0], 2, True]

    def test_steps_of_another_window_come_first_and_those_that_wait_get_free_names(self, on_board):
        script = """
          const add = (id, from) => ({ op: 'add', step: { id, make: 'circle', from } });
          const saving = { pending: [{ key: 'mine', operation: add('c', ['B', 'A']) }], add() {}, replace(all) { saving.pending = all; } };
          store.connect(saving);
          store.takeInMissed([{ key: 'theirs', operation: add('c', ['A', 'B']) }]);
          return store.own.map(({ id, from }) => [id, from]);"""
        assert on_board("board/construction/store.js", script) == [["c", ["A", "B"]], ["d", ["B", "A"]]]

    def test_new_names_avoid_those_that_are_taken(self, on_board):
        script = "return [store.newId('free_point'), store.newId('circle')];"
        assert on_board("board/construction/store.js", script, "c circle A B", taken=["C"]) == ["D", "d"]

    def test_where_moved_points_had_first_been(self, on_board):
        moves = [{"op": "move", "points": {"A": [1, 1], "F": [9, 9]}}, {"op": "move", "points": {"F": [2, 2]}}]
        script = "return store.movedFrom;"
        found = on_board("board/construction/store.js", script, "F free_point at=2,2", log=moves)
        assert found == {"A": [0, 0]}  # F is back already

    def test_what_an_object_does_not_need(self, on_board):
        lines = "c circle A B\nd circle B A\nC intersection c d pick=1\nl line A B"
        assert on_board("board/construction/store.js", "return store.notNeededBy('C');", lines) == ["l"]

    def test_points_run_out(self, on_board):
        script = """
          const few = [{ ...tool('point'), most: 1 }];
          return [store.mayPutPoints(few), store.mayPutPoints([tool('point')]), store.mayPutPoints([])];"""
        found = on_board("board/construction/store.js", script, "F free_point at=1,1", tools=["free_point"])
        assert found == [False, True, False]


def at(x, y):
    """Where a place is on the screen."""
    return [50 * (x + 2), 50 * (6 - y)]


CIRCLES = "c circle A B\nd circle B A"


class TestOffers:
    @pytest.mark.parametrize(
        ("make", "place", "types"),
        [
            ("line", at(0, 0), ["object", "free"]),
            ("line", at(2, 3.4641), ["intersection", "slide", "slide", "free"]),
            ("line", at(1, 1), ["free"]),
            ("intersection", at(2, 2), []),
            ("intersection", at(4, 4), ["object"]),
            ("move", at(4, 0), ["object"]),
            ("move", at(4, 4), []),
        ],
    )
    def test_what_a_click_would_take(self, on_board, make, place, types):
        script = f"""
          hand.take(tool('{make}'));
          return m.offersAt({{ store, hand, tools, view }}, {place}, 'mouse').map(({{ type }}) => type);"""
        found = on_board("board/paper/offers.js", script, CIRCLES, tools=["line", "free_point"])
        if make == "line" and place == at(0, 0):
            assert found[0] == types[0] and found[-1] == types[-1]
        else:
            assert found == types

    def test_an_empty_hand_takes_nothing_and_a_finger_reaches_farther(self, on_board):
        script = f"""
          const free = m.offersAt({{ store, hand, tools, view }}, {at(0, 0)}, 'mouse');
          hand.take(tool('move'));
          const [px, py] = {at(0, 0)};
          const far = (pointer) => m.offersAt({{ store, hand, tools, view }}, [px + 20, py], pointer).length;
          return [free.length, far('mouse'), far('touch')];"""
        assert on_board("board/paper/offers.js", script) == [0, 0, 1]

    def test_with_shift_a_point_lands_on_nothing(self, on_board):
        script = f"""
          hand.take(tool('point'));
          return m.offersAt({{ store, hand, tools, view }}, {at(4, 4)}, 'mouse', true).map(({{ type }}) => type);"""
        assert on_board("board/paper/offers.js", script, CIRCLES, tools=["free_point"]) == ["free"]

    def test_offers_are_told_in_words(self, on_board):
        script = """
          const said = (offer, isAmbiguous) => m.wordsFor(store.figure, offer, isAmbiguous);
          return [said(null), said({ which: 2 }), said({ type: 'object', id: 'c' }), said({ type: 'object', id: 'c' }, true),
            said({ type: 'intersection', step: { from: ['c', 'd'] } }), said({ type: 'slide', id: 'c' }), said({ type: 'free' })];"""
        assert on_board("board/paper/offers.js", script, CIRCLES) == [
            "",
            "2",
            "c",
            "c, circle",
            "intersection of c, d",
            "new point on c",
            "new point",
        ]

    def test_the_nearest_point_is_dragged_and_hidden_ones_are_not(self, on_board):
        script = f"""
          const [px, py] = {at(0, 0)};
          return [m.draggableAt({{ store, view }}, [px + 4, py], 'mouse'), m.objectsAt({{ store, view }}, [px + 200, py - 199], 'mouse')[0].id];"""
        hide = [{"op": "dress", "id": "F", "dress": {"hidden": True}}]
        found = on_board("board/paper/offers.js", script, CIRCLES + "\nF free_point at=0.1,0", log=hide)
        assert found == ["A", "d"]


class TestHand:
    def test_a_point_is_not_taken_twice_unless_the_tool_says_so(self, on_board):
        script = """
          const again = (make) => { hand.take(tool(make)); hand.filled = ['A']; return hand.fits(store.figure, 'A'); };
          return [again('line'), again('ratio')];"""
        assert on_board("board/tools/hand.js", script, tools=["line"]) == [False, True]

    def test_blanks_lose_what_is_gone(self, on_board):
        script = """
          hand.take(tool('intersection'));
          hand.filled = ['c', 'd'];
          hand.meetings = [1, 2];
          hand.forget((id) => id === 'd');
          return [hand.filled, hand.meetings, hand.isFull];"""
        assert on_board("board/tools/hand.js", script, CIRCLES) == [["c"], None, False]

    def test_a_blank_that_was_emptied_is_filled_before_the_others(self, on_board):
        script = """
          hand.take(tool('circle_radius'));
          hand.filled = ['A', 'A', 'B'];
          hand.emptyAt(1);
          const kept = [...hand.filled];
          hand.filled = hand.filledWith('B', 'point');
          return [kept, hand.filled];"""
        assert on_board("board/tools/hand.js", script, tools=["circle_radius"]) == [["A", None, "B"], ["A", "B", "B"]]

    def test_the_sentence_shows_what_is_filled_and_what_is_next(self, on_board):
        script = "hand.take(tool('line')); hand.filled = ['A']; return hand.parts((id) => id, 'B');"
        parts = on_board("board/tools/hand.js", script, tools=["line"])
        assert parts == ["Line through", {"filled": "A", "place": 0}, "and", {"next": "a point", "offer": "B"}]

    def test_a_compass_keeps_its_radius(self, on_board):
        script = (
            "hand.take(tool('circle_radius')); hand.filled = ['A', 'A', 'B']; hand.next(); return hand.filled.length;"
        )
        assert on_board("board/tools/hand.js", script, tools=["circle_radius"]) == 2


class TestRoles:
    def test_objects_are_marked_by_what_they_are_and_what_is_pointed_at(self, on_board):
        script = """
          pointed.highlighted = 'c';
          const roles = m.rolesOf({ store, hand, pointed, isSelected: (id) => id === 'd', resultRole: (id) => id === 'B' ? 'answer' : null, showsArcs: true });
          return ['A', 'B', 'c', 'd'].map((id) => [...roles(id)].sort());"""
        found = on_board("board/paper/roles.js", script, CIRCLES)
        assert found == [["given"], ["answer", "given"], ["highlighted"], ["arcs", "highlighted"]]

    def test_what_is_in_hand_stands_out(self, on_board):
        script = """
          hand.take(tool('line'));
          hand.filled = ['A'];
          const roles = m.rolesOf({ store, hand, pointed, isSelected: () => false, resultRole: () => null });
          return roles('A').has('highlighted');"""
        assert on_board("board/paper/roles.js", script, tools=["line"])


class TestHits:
    def test_points_curves_and_intersections_under_a_place(self, on_board):
        script = f"""
          const hits = new m.Hits(store.figure, view, () => false);
          const place = {at(2, 3.4641)};
          return [hits.intersections(place, 13).length, hits.curves(place, 13).map(({{ id }}) => id).sort(), hits.points(place, 13).length];"""
        assert on_board("figure/hits.js", script, CIRCLES) == [1, ["c", "d"], 0]

    def test_marked_intersections_are_left_out(self, on_board):
        script = (
            "return new m.Hits(store.figure, view, () => false).allIntersections().map(([x, y]) => [x, Math.sign(y)]);"
        )
        found = on_board("figure/hits.js", script, CIRCLES + "\nC intersection c d pick=1")
        assert len(found) == 1 and found[0] == [pytest.approx(2), -1]

    @pytest.mark.parametrize(
        ("kind", "shape", "paper", "nearest"),
        [
            ("segment", [0, 0, 4, 0], [9, 1], [4, 0]),
            ("ray", [0, 0, 4, 0], [9, 1], [9, 0]),
            ("ray", [0, 0, 4, 0], [-9, 1], [0, 0]),
            ("line", [0, 0, 4, 0], [-9, 1], [-9, 0]),
            ("circle", [0, 0, 25], [6, 8], [3, 4]),
        ],
    )
    def test_the_nearest_place_on_a_curve(self, run, kind, shape, paper, nearest):
        found = run("figure/figure.js", "return m.nearestPlace(...x);", [kind, shape, paper])
        assert found == pytest.approx(nearest)


class TestChoices:
    def test_an_intersection_may_be_chosen_in_several_ways(self, on_board):
        lines = CIRCLES + "\nC intersection c d pick=1"
        script = "return m.choicesFor(store.figure, store.figure.step('C')).map(({ words }) => words);"
        found = on_board("board/objects/choices.js", script, lines)
        assert found[0] == "right of the way from c to d" and "nearer to A" in found and "farther from B" in found

    def test_points_are_attached_and_detached(self, on_board):
        lines = CIRCLES + "\nF free_point at=1,1\nS point_on c at=0,4"
        script = "return ['F', 'S'].map((id) => m.choicesFor(store.figure, store.figure.step(id)).map(({ words }) => words));"
        free, sliding = on_board("board/objects/choices.js", script, lines)
        assert set(free) == {"Attach to c", "Attach to d"} and sliding == ["Detach"]


def test_steps_are_numbered_by_the_moves_that_they_count(on_board):
    use = {
        "op": "use",
        "class_tool": "Rule",
        "from": ["A", "B"],
        "gives": ["m"],
        "moves": 3,
        "steps": from_lines("m1 circle A B\nm2 circle B A\nm perpendicular_bisector A B"),
    }
    script = "return m.numbered(store.own, book.makes).map(({ step, number }) => [step.id, number]);"
    found = on_board("board/objects/step-list.js", script, "c circle A B\nF free_point at=1,1", log=[use])
    assert found == [["c", "1"], ["F", ""], ["m1", ""], ["m2", ""], ["m", "2–4"]]


class TestPaper:
    PAPER = """
      const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
      document.body.append(svg);
      svg.setAttribute('width', 400); svg.setAttribute('height', 300);
      let painted = 0;
      const paper = new m.Paper(svg, () => [[0, 0], [4, 3]], [], () => { painted += 1; });
      paper.fit();
    """

    def test_the_figure_is_fitted_with_room_around_it(self, run):
        script = "const [px, py] = paper.view.toScreen(2, 1.5); return [px, py, paper.isInView([0, 0]), paper.isInView([40, 0])];"
        found = run("board/paper/paper.js", self.PAPER + script)
        assert found[:2] == pytest.approx([200, 150], abs=2) and found[2:] == [True, False]

    def test_zooming_keeps_the_middle_and_the_view_no_longer_follows_the_window(self, run):
        script = """
          const before = paper.view.toPaper(...paper.middle);
          paper.zoom(2);
          return [before, paper.view.toPaper(...paper.middle), paper.isFitted, painted > 1];"""
        before, after, fitted, painted = run("board/paper/paper.js", self.PAPER + script)
        assert before == pytest.approx(after) and not fitted and painted


class TestGrips:
    GRIPS = """
      const performed = [];
      store.connect({ pending: [], add: (operation) => performed.push(operation), replace() {} });
      const paper = { view, setView(next) { paper.view = next; } };
      const notes = { named: () => ({ text: 'a word', at: [1, 1] }), putAside() {} };
      const quiet = { pointed: { at() {} }, bar: { announce() {} } };
      const grip = (event, place) => m.gripAt({ store, hand, paper, notes, ...quiet, selection: { isOn: false } },
        { target: document.body, pointerType: 'mouse', ...event }, place, false);
    """

    def test_a_point_goes_where_the_pointer_is(self, on_board):
        script = (
            self.GRIPS
            + f"const one = grip({{}}, {at(4, 0)}); one.move({at(5, 1)}, 50, -50); one.drop(); return performed;"
        )
        assert on_board("board/paper/grips.js", script) == [{"op": "move", "points": {"B": [5, 1]}}]

    def test_with_shift_the_whole_figure_goes_along(self, on_board):
        script = (
            self.GRIPS
            + f"const one = grip({{ shiftKey: true }}, {at(1, 4)}); one.move([], 50, 0); one.drop(); return performed;"
        )
        assert on_board("board/paper/grips.js", script) == [{"op": "move", "points": {"A": [1, 0], "B": [5, 0]}}]

    def test_anywhere_else_the_paper_is_moved_and_nothing_is_kept(self, on_board):
        script = (
            self.GRIPS
            + f"const one = grip({{}}, {at(1, 4)}); one.move([], 50, 0); one.drop(); return [performed, paper.view.left];"
        )
        assert on_board("board/paper/grips.js", script) == [[], -3]


def test_allowed_tools_know_their_bound_and_a_fixed_compass_asks_for_the_centre_alone(on_board):
    script = """
      const some = m.allowed([{ tool: 'line', most: 2 }, { tool: 'circle_radius', opening: ['A', 'B'] }], false, book);
      return some.map(({ make, most, name }) => [make, most, name]);"""
    found = on_board("board/construction/tools.js", script)
    assert ["line", 2, "Line"] in found and ["circle_radius", None, "Fixed compass"] in found
    assert {make for make, _, _ in found} == {"move", "intersection", "line", "circle_radius"}


def test_a_row_of_names(run):
    assert run("figure/listed.js", "return [['A'], ['A', 'B'], ['A', 'B', 'C']].map(m.listed);") == [
        "A",
        "A and B",
        "A, B and C",
    ]


@pytest.mark.parametrize(
    ("text", "term"),
    [
        ("A", "A"),
        ("AB", ["A", "B"]),
        ("A-B", ["A", "B"]),
        ("ABP1", ["A", "B", "P1"]),
        ("sample A", "model:A"),
        ("AX", "AX"),
        ("g", "g"),
    ],
)
def test_a_blank_of_a_condition_takes_names_and_points_one_after_the_other(run, text, term):
    names = ["A", "B", "P1", "g", "model:A"]
    assert (
        run("desk/sentences.js", "return m.termOf(x.text, new Set(x.names));", {"text": text, "names": names}) == term
    )


def test_a_term_is_written_as_it_is_typed(run):
    terms = ["A", ["A", "B"], ["A", "P1"], ["model:A", "B"]]
    assert run("desk/sentences.js", "return x.map(m.written);", terms) == ["A", "AB", "AP1", "sample A-B"]


def test_arcs_stand_at_the_points_that_are_used(on_board):
    lines = CIRCLES + "\nC intersection c d pick=1\nH point_on c at=0,-4"
    hide = [{"op": "dress", "id": "H", "dress": {"hidden": True}}]
    script = """
      const used = m.pointsUsedOn(store.figure, 'c');
      const data = m.arcsData(store.figure.shape('c'), used.map((id) => store.figure.shape(id)), view);
      return [used, data.split('M').length - 1];"""
    assert on_board("figure/arcs.js", script, lines, log=hide) == [["B", "C"], 2]


def test_a_step_is_told_in_one_line(on_board):
    lines = CIRCLES + "\nC intersection c d other_than=A\nk circle_radius C A B"
    script = "return ['c', 'C', 'k'].map((id) => m.inOneLine(m.sentenceOf(store.figure.step(id), book), (one) => one));"
    assert on_board("figure/step-words.js", script, lines) == [
        "circle centred A through B",
        "intersection of c and d other than A",
        "circle centred C with radius AB",
    ]


HAND = """
  const figure = { kind: () => "point" };
  const blank = { kind: "point" };
  const hand = new m.Hand();
  const fitting = (tool, filled) => {
    hand.take({ say: Array(x.blanks).fill(blank), ...tool });
    hand.filled = filled;
    return ["A", "B", "C"].filter((id) => hand.fits(figure, id)).join("");
  };
  return x.filled.map((filled) => fitting({ make: "one", different: x.different }, [...filled]));
"""


@pytest.mark.parametrize(
    ("different", "blanks", "filled", "fitting"),
    [
        (None, 3, ["", "A", "AB"], ["ABC", "BC", "C"]),  # of most tools all points differ
        ([[0, 1]], 3, ["A", "AB"], ["BC", "ABC"]),  # a radius may be measured from the centre
        # A rotation about the vertex of its own angle, of a point of its leg.
        ([[2, 3], [3, 4], [0, 1], [2, 4]], 5, ["C", "CA", "CAB", "CABA"], ["AB", "ABC", "AC", "C"]),
    ],
)
def test_a_blank_takes_a_point_again_where_the_make_allows_it(run, different, blanks, filled, fitting):
    found = run("board/tools/hand.js", HAND, {"different": different, "blanks": blanks, "filled": filled})
    assert found == fitting


def test_another_tool_begins_with_empty_blanks(on_board):
    script = "hand.take(tool('circle')); hand.filled.push('A'); hand.take(tool('line')); return hand.filled;"
    assert on_board("board/tools/hand.js", script, tools=["circle", "line"]) == []
