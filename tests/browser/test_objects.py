"""Objects answer on the paper: what they are, what can be done with them; and what is seen of them."""

import pytest
from playwright.sync_api import expect
from sqlalchemy import select

from widepin.school.database import make_sessions
from widepin.school.models import Assignment, HandIn, Person, Work
from widepin.school.works.reviewing import comment

CIRCLES = [
    {"id": "c", "make": "circle", "from": ["A", "B"]},
    {"id": "d", "make": "circle", "from": ["B", "A"]},
    {"id": "M", "make": "intersection", "from": ["c", "d"], "pick": 1},
]
TITLE = "Splitting a gable"


@pytest.fixture
def circles(desk):
    desk.enter(TITLE)
    return desk.put(CIRCLES)


def dragged(desk, start, end, hold=0):
    desk.page.mouse.move(*start)
    desk.page.mouse.down()
    desk.page.mouse.move(*end, steps=5)
    desk.page.wait_for_timeout(hold)
    desk.page.mouse.up()


def hint(desk):
    return desk.page.locator(".hint")


def menu(desk):
    return desk.page.locator(".object-menu")


def last_step(desk):
    return desk.page.evaluate("document.querySelector('.board-page').board.store.own.at(-1)")


class TestWithoutATool:
    def test_what_is_pointed_at_lights_up_and_is_named(self, circles):
        circles.page.mouse.move(*circles.point("A"))
        expect(circles.page.locator(".chooser")).to_contain_text("A: given point")
        expect(circles.page.locator(".point[data-id=A]")).to_have_class("point given highlighted")
        circles.page.mouse.move(*circles.point("M"))
        expect(circles.page.locator(".chooser")).to_contain_text("M: intersection of c and d")
        circles.page.keyboard.press("ArrowDown")  # to a circle that lies there too
        expect(circles.page.locator(".curve.highlighted")).to_have_count(1)

    def test_a_given_object_is_measured_dressed_and_hidden_in_its_menu(self, desk):
        desk.enter("Roundel in a gable")
        (ax, ay), (bx, by) = desk.point("A"), desk.point("B")
        desk.page.mouse.click((ax + bx) / 2, (ay + by) / 2)
        expect(menu(desk)).to_contain_text("c: segment from A to B, given")
        expect(menu(desk).get_by_role("button", name="Remove", exact=True)).to_have_count(0)
        menu(desk).get_by_role("button", name="Length", exact=True).click()
        expect(desk.page.locator(".measures").first).to_contain_text("AB")
        menu(desk).get_by_role("button", name="Dashed").click()
        expect(desk.page.locator(".curve.given.dashed")).to_have_count(1)
        menu(desk).get_by_role("button", name="Hide", exact=True).click()
        expect(desk.page.locator(".curve[data-id=c]")).to_have_count(0)
        expect(menu(desk)).to_be_hidden()
        desk.page.get_by_role("button", name="Show all").click()
        expect(desk.page.locator(".curve[data-id=c]")).to_have_count(1)

    def test_what_lies_there_too_is_a_button_of_the_menu(self, circles):
        circles.click("M")
        expect(menu(circles)).to_contain_text("Also here:")
        menu(circles).get_by_role("button", name="c", exact=True).click()
        expect(menu(circles)).to_contain_text("c: circle centred A through B")
        circles.page.keyboard.press("Escape")
        expect(menu(circles)).to_be_hidden()

    def test_a_name_is_written_anew_on_the_paper(self, circles):
        box = circles.page.locator("[data-names=M]").bounding_box()
        circles.page.mouse.dblclick(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        field = menu(circles).get_by_label("Name of M")
        expect(field).to_be_focused()
        circles.page.keyboard.type("Apex")
        circles.page.keyboard.press("Enter")
        expect(circles.page.locator("[data-names=M]")).to_have_text("Apex")
        circles.page.keyboard.press("Escape")
        circles.page.mouse.move(*circles.point("M"))
        circles.page.keyboard.press("F2")
        expect(field).to_be_focused()
        expect(field).to_have_value("Apex")

    def test_a_name_given_in_another_window_is_not_given_twice(self, circles):
        second = circles.page.context.new_page()
        second.goto(circles.page.url)
        second.wait_for_selector("[data-ready]")
        rename = (
            "(id) => document.querySelector('.board-page').board.store.perform({op: 'dress', id, dress: {label: 'k'}})"
        )
        circles.page.evaluate(rename, "c")
        circles.saved()
        second.evaluate(rename, "d")
        expect(second.locator(".hint")).to_contain_text("Another object is called k")
        expect(second.locator(".step-list li[data-step=d]")).to_contain_text("d:")
        # Nor to a new object.
        second.evaluate(
            "document.querySelector('.board-page').board.store.perform({op: 'add', step: {id: 'k', make: 'line', from: ['A', 'B']}})"
        )
        expect(second.locator(".hint")).to_contain_text("Another object is called k")

    def test_a_tool_shows_what_ruler_and_compass_would_do(self, desk):
        desk.enter("Roundel in a gable")
        desk.put([{"id": "w", "make": "angle_bisector", "from": ["B", "A", "C"]}])
        desk.page.evaluate("document.querySelector('.board-page').board.objectMenu.open(['w'], [500, 200])")
        desk.page.get_by_role("button", name="How ruler and compass do it").click()
        told = menu(desk).locator(".told-steps")
        expect(told).to_contain_text("7 of 7")
        expect(told).to_contain_text("w: ray from A through")
        expect(desk.page.locator(".paper circle.by-hand:not(.dot)")).to_have_count(3)
        for _ in range(6):
            told.get_by_role("button", name="Back").click()
        expect(told).to_contain_text("circle centred A through B")
        expect(desk.page.locator(".paper .by-hand")).to_have_count(1)
        desk.page.keyboard.press("Escape")
        expect(desk.page.locator(".paper .by-hand")).to_have_count(0)
        expect(desk.page.locator(".step-list .count")).to_have_text("1 of 4 moves")


class TestTaking:
    def test_one_undo_takes_back_what_one_click_did(self, circles):
        circles.take("circle")
        circles.click("A")
        circles.page.mouse.click(*circles.at(4, 7.2))
        assert len(circles.steps()) == 5
        circles.page.keyboard.press("Control+z")
        assert len(circles.steps()) == 3
        circles.page.keyboard.press("Control+y")
        assert len(circles.steps()) == 5
        circles.saved()
        circles.page.reload()
        circles.ready()
        circles.page.get_by_role("button", name="Undo").click()
        assert len(circles.steps()) == 3

    def test_a_point_beside_an_intersection_is_changed_with_one_click(self, circles):
        add = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"
        circles.page.evaluate(add, {"id": "N", "make": "intersection", "from": ["c", "d"], "pick": 2})
        x, y = circles.point("N")
        circles.page.keyboard.press("Control+z")  # no point is there now
        circles.take("point")
        circles.page.mouse.move(x + 28, y + 16)
        circles.page.mouse.click(x + 28, y + 16)
        expect(hint(circles)).to_contain_text("is a point on")
        circles.page.get_by_role("button", name="Intersection of c and d instead").click()
        assert last_step(circles)["make"] == "intersection"
        expect(hint(circles)).to_contain_text("is the intersection of c and d")
        circles.page.get_by_role("button", name="Undo").click()
        assert last_step(circles)["make"] == "point_on"

    def test_measuring_puts_no_point(self, circles):
        circles.take("length")
        circles.page.mouse.click(*circles.at(4, 7.2))
        expect(hint(circles)).to_contain_text("nothing here that fits")
        assert len(circles.steps()) == 3


class TestAttaching:
    @pytest.fixture(autouse=True)
    def _put(self, circles):
        add = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"
        circles.page.evaluate(add, {"id": "P", "make": "free_point", "at": [5, 1]})

    def test_a_point_is_attached_to_what_it_is_dropped_on(self, circles):
        on_c = circles.page.evaluate(
            """() => { const { board } = document.querySelector('.board-page');
              const [x, y, rr] = board.store.figure.shape('c'); const r = Math.sqrt(rr);
              const [px, py] = board.paper.view.toScreen(x + r * Math.cos(-0.4), y + r * Math.sin(-0.4));
              const box = document.querySelector('.paper').getBoundingClientRect();
              return [box.x + px, box.y + py]; }"""
        )
        circles.page.keyboard.down("Shift")
        dragged(circles, circles.point("P"), on_c)
        circles.page.keyboard.up("Shift")
        assert last_step(circles)["make"] == "free_point"
        expect(hint(circles)).to_contain_text("P stays free: with Shift it is not attached to c.")
        dragged(circles, circles.point("P"), (on_c[0] + 26, on_c[1]))
        assert last_step(circles)["make"] == "free_point"
        expect(hint(circles)).to_contain_text("P stays free: it lies beside c, not on it.")
        dragged(circles, circles.point("P"), on_c)
        assert last_step(circles)["make"] == "point_on" and last_step(circles)["from"] == ["c"]
        expect(hint(circles)).to_contain_text("P is attached to c now.")
        circles.page.keyboard.press("Control+z")
        assert last_step(circles)["make"] == "free_point"

    def test_a_point_is_pulled_off_its_curve_with_shift(self, circles):
        step = {"id": "P", "make": "point_on", "from": ["c"], "at": [9, 2]}
        circles.page.evaluate(
            "(step) => document.querySelector('.board-page').board.store.perform({op: 'remake', step})", step
        )
        place = circles.point("P")
        circles.page.keyboard.down("Shift")
        dragged(circles, place, circles.at(5, 1))
        circles.page.keyboard.up("Shift")
        assert last_step(circles)["make"] == "free_point"
        assert last_step(circles)["at"] == pytest.approx([5, 1], abs=0.1)
        expect(hint(circles)).to_contain_text("P is a free point now.")


class TestMarks:
    def test_equal_lengths_are_believed_until_they_are_proven(self, circles):
        circles.take("equal_lengths")
        circles.page.keyboard.type("AMBM", delay=30)
        expect(circles.page.locator(".tick.proven")).to_have_count(2)
        expect(circles.page.locator(".equalities")).to_contain_text("AM = BM")
        expect(circles.page.locator(".equalities")).to_contain_text("in every position")
        circles.page.keyboard.type("ACBC", delay=30)
        expect(circles.page.locator(".equalities")).to_contain_text("not in every position")
        expect(circles.page.locator(".tick.believed")).to_have_count(0)  # what is not so is not marked
        expect(circles.page.locator(".tick.proven")).to_have_count(2)
        circles.page.get_by_role("button", name="Remove the mark AC = BC").click()
        expect(circles.page.locator(".equalities")).not_to_contain_text("AC = BC")

    def test_equal_angles_stand_in_groups(self, circles):
        mark = "(of) => document.querySelector('.board-page').board.store.perform({op: 'mark equal', of})"
        circles.page.evaluate(mark, [["A", "M", "B"], ["M", "B", "A"]])
        circles.page.evaluate(mark, [["A", "M", "B"], ["B", "A", "M"]])
        expect(circles.page.locator(".tick.proven")).to_have_count(3)  # one arc in each of three angles
        circles.page.evaluate(mark, [["A", "C", "B"], ["C", "B", "A"]])
        expect(circles.page.locator(".tick.believed")).to_have_count(4)  # two arcs in two angles

    def test_ninety_degrees_are_said_of_what_is_exactly_that(self, circles):
        add = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"
        circles.page.evaluate(add, {"id": "N", "make": "intersection", "from": ["c", "d"], "pick": 2})
        measure = "(of) => document.querySelector('.board-page').board.store.perform({op: 'measure', of})"
        circles.page.evaluate(add, {"id": "s", "make": "segment", "from": ["A", "B"]})
        circles.page.evaluate(add, {"id": "l", "make": "segment", "from": ["M", "N"]})
        circles.page.evaluate(add, {"id": "O", "make": "intersection", "from": ["s", "l"]})
        circles.page.evaluate(measure, ["A", "O", "M"])
        expect(circles.page.locator(".measures").first).to_contain_text(" 90°")
        expect(circles.page.locator(".tick.proven")).to_have_count(1)
        # Given points that stand a hair off a right angle.
        move = "(points) => document.querySelector('.board-page').board.store.perform({op: 'move', points})"
        circles.page.evaluate(move, {"A": [1, 1], "B": [9, 1], "C": [1.005, 8]})
        circles.page.evaluate(measure, ["B", "A", "C"])
        expect(circles.page.locator(".measures").first).to_contain_text("89.96°")
        circles.page.evaluate(move, {"C": [1, 8]})
        expect(circles.page.locator(".measures").first).not_to_contain_text("89.96°")
        expect(circles.page.locator(".tick:not(.proven)")).to_have_count(1)  # right here, not always


class TestSeeing:
    def test_what_lies_off_the_paper_is_said_at_its_edge(self, circles):
        page = circles.page
        box = page.locator(".paper").bounding_box()
        dragged(circles, circles.at(2.2, 7.6), (box["x"] + 40, box["y"] + box["height"] + 250))
        edge = page.locator(".off-paper .bottom-edge")
        expect(edge).to_contain_text("↓")
        edge.click()
        expect(page.locator(".off-paper button")).to_have_count(0)

    def test_arcs_have_a_length_on_the_screen(self, circles):
        circles.page.get_by_role("button", name="Arcs").click()
        span = """() => { const path = document.querySelector('path.curve.arcs');
          return path.getTotalLength() / (path.getAttribute('d').match(/M/g).length); }"""
        before = circles.page.evaluate(span)
        circles.page.get_by_role("button", name="Smaller").click()
        assert circles.page.evaluate(span) == pytest.approx(before, rel=0.05) and before == pytest.approx(52, abs=4)

    def test_an_empty_board_shows_that_the_figure_can_be_dragged(self, desk):
        desk.enter(TITLE)
        expect(desk.page.locator(".drag-hint")).to_have_count(1)
        x, y = desk.point("A")
        dragged(desk, (x, y), (x + 40, y - 20))
        expect(desk.page.locator(".drag-hint")).to_have_count(0)
        desk.saved()
        desk.page.reload()
        desk.ready()
        expect(desk.page.locator(".drag-hint")).to_have_count(0)

    def test_controls_stand_beside_the_figure_and_measures_apart(self, circles):
        tools, paper = (circles.page.locator(one).bounding_box() for one in (".paper-tools", ".paper"))
        assert tools["x"] + tools["width"] <= paper["x"] + 1
        groups = circles.page.locator(".tool-group").evaluate_all("all => all.map((one) => one.ariaLabel)")
        assert groups[0] == "Draw" and groups[-1] == "Measure"

    def test_curves_that_are_one_are_said_to_be_one(self, desk):
        desk.enter(TITLE)
        desk.put(
            [
                {"id": "l", "make": "line", "from": ["A", "B"]},
                {"id": "P", "make": "point_on", "from": ["l"], "at": [5, 2.2]},
                {"id": "k", "make": "line", "from": ["P", "B"]},
            ]
        )
        desk.take("intersection")
        desk.page.keyboard.type("lk", delay=30)
        expect(hint(desk)).to_contain_text("l and k are the same line here.")


class TestPositions:
    def test_positions_are_noted_compared_brought_back_and_exported(self, circles):
        page = circles.page
        circles.take("length")
        page.keyboard.type("AB", delay=30)
        page.keyboard.press("Escape")
        note = page.get_by_role("button", name="Note position")
        note.click()
        dragged(circles, circles.point("B"), circles.at(7, 4))
        note.click()
        rows = page.locator(".positions tbody tr")
        expect(rows).to_have_count(2)
        first, second = (rows.nth(n).locator("td").first.inner_text() for n in (0, 1))
        assert first == "7.02 cm" and second != first
        page.get_by_role("button", name="Compare with position 1").click()
        expect(page.locator(".compared")).not_to_have_count(0)
        page.get_by_role("button", name="Go to position 1").click()
        expect(page.locator(".measures").first).to_contain_text("7.02 cm")
        with page.expect_download() as download:
            page.get_by_role("button", name="Export (CSV)").click()
        text = download.value.path().read_text("utf-8-sig")
        assert text.splitlines()[:2] == ['"Position","AB"', '"1","7.02 cm"']
        page.reload()
        circles.ready()
        expect(rows).to_have_count(2)
        page.get_by_role("button", name="Remove position 1").click()
        expect(rows).to_have_count(1)

    def test_a_ghost_stays_where_the_figure_was(self, circles):
        circles.page.get_by_role("button", name="Compare", exact=True).click()
        before = circles.page.locator("circle.compared").first.get_attribute("cx")
        dragged(circles, circles.point("B"), circles.at(7, 4))
        assert circles.page.locator("circle.compared").first.get_attribute("cx") == before
        circles.page.get_by_role("button", name="Compare", exact=True).click()
        expect(circles.page.locator(".compared")).to_have_count(0)


class TestLocus:
    def test_the_path_of_a_point_is_drawn_and_nothing_is_built_on_it(self, circles):
        slider = {"id": "S", "make": "point_on", "from": ["c"], "at": [6, 6]}
        add = "(step) => document.querySelector('.board-page').board.store.perform({op: 'add', step})"
        circles.page.evaluate(add, slider)
        circles.page.evaluate(add, {"id": "e", "make": "circle", "from": ["S", "B"]})
        circles.page.evaluate(add, {"id": "T", "make": "intersection", "from": ["d", "e"], "pick": 1})
        circles.click("T")
        menu(circles).get_by_role("button", name="Locus as S slides").click()
        expect(circles.page.locator("path.locus")).to_have_count(1)
        assert len(circles.page.locator("path.locus").get_attribute("d")) > 500
        circles.page.keyboard.press("Escape")
        circles.saved()
        circles.page.reload()
        circles.ready()
        expect(circles.page.locator("path.locus")).to_have_count(1)
        circles.click("T")
        menu(circles).get_by_role("button", name="Remove the locus").click()
        expect(circles.page.locator("path.locus")).to_have_count(0)

    def test_a_teacher_can_switch_it_off(self, circles, school):
        number = int(circles.page.url.rsplit("/", 1)[1])
        with make_sessions(school)() as session:
            session.get_one(Assignment, number).loci = False
            session.commit()
        try:
            circles.page.evaluate(
                "document.querySelector('.board-page').board.store.perform({op: 'locus', point: 'M', driver: 'M'})"
            )
            expect(hint(circles)).to_contain_text("No loci")
        finally:
            with make_sessions(school)() as session:
                session.get_one(Assignment, number).loci = True
                session.commit()


class TestStanding:
    def test_comments_and_attempts_stand_on_the_board_and_are_answered_there(self, circles, school):
        page = circles.page
        number = int(page.url.rsplit("/", 1)[1])
        circles.hand_in()
        with make_sessions(school)() as session:
            assignment = session.get_one(Assignment, number)
            attempt = session.scalars(
                select(HandIn)
                .join(Work)
                .join(Person, Person.id == Work.student_id)
                .where(Work.assignment_id == number, Person.login == circles.login)
            ).one()
            comment(session, attempt, assignment.school_class.teacher, "Look at M again.")
            session.commit()
        page.go_back()
        page.reload()
        circles.ready()
        said = page.locator(".standing .said")
        expect(said).to_contain_text("Look at M again.")
        said.get_by_label("Your answer").fill("I see.")
        said.get_by_role("button", name="Answer").click()
        expect(said).to_contain_text("You: I see.")

    def test_an_open_board_hears_of_a_new_version(self, circles, school):
        number = int(circles.page.url.rsplit("/", 1)[1])
        with make_sessions(school)() as session:
            session.get_one(Assignment, number).finding = False
            session.commit()
        try:
            circles.page.evaluate("document.querySelector('.board-page').board.presence.say()")
            expect(circles.page.locator(".new-version")).to_contain_text("What you built is kept.")
        finally:
            with make_sessions(school)() as session:
                session.get_one(Assignment, number).finding = True
                session.commit()


class TestFocus:
    def test_tools_are_reached_by_one_key_and_walked_by_arrows(self, circles):
        page = circles.page
        page.keyboard.press("t")
        expect(page.locator(".card-tool").first).to_be_focused()
        page.keyboard.press("ArrowRight")
        page.keyboard.press("ArrowRight")
        expect(page.locator(".card-tool").nth(2)).to_be_focused()
        page.keyboard.press("End")
        expect(page.locator(".card-tool").last).to_be_focused()
        page.keyboard.press("Tab")
        assert page.evaluate("!document.activeElement.classList.contains('card-tool')")

    def test_focus_goes_on_when_what_had_it_is_gone(self, circles):
        page = circles.page
        page.locator(".step-list li[data-step=M] > button").focus()
        page.keyboard.press("Enter")
        page.locator(".step-list li[data-step=M]").get_by_role("button", name="Remove", exact=True).press("Enter")
        expect(page.locator(".step-list li[data-step=M]")).to_have_count(0)
        assert page.evaluate("document.activeElement !== document.body")
        undo = page.get_by_role("button", name="Undo")
        undo.focus()
        for _ in range(6):
            if undo.is_enabled():
                undo.press("Enter")
        assert page.evaluate("document.activeElement !== document.body")

    def test_the_sentence_is_spoken_with_its_blank(self, circles):
        circles.take("circle")
        circles.page.keyboard.type("A", delay=20)
        label = circles.page.locator("input.blank").get_attribute("aria-label")
        assert label == "Circle centred A through … Next, a point: type its name"
