"""What is done on the paper besides building: the answer named, objects selected, notes, and measures between them."""

from playwright.sync_api import expect

from tests.zoo import JUMPING_GABLE


def dragged(desk, start, end):
    """A drag with the mouse between two places on the screen."""
    mouse = desk.page.mouse
    mouse.move(*start)
    mouse.down()
    mouse.move(*[(a + b) / 2 for a, b in zip(start, end, strict=True)])
    mouse.move(*end)
    mouse.up()


class TestAnswer:
    def test_an_answer_that_is_named_is_the_one_judged(self, desk):
        desk.enter("Splitting a gable")
        desk.put([*JUMPING_GABLE, {"id": "n", "make": "ray", "from": ["A", "D"]}])
        desk.page.get_by_role("button", name="Hand in").click()
        expect(desk.page.locator(".sentence")).to_contain_text("The ray m is")
        desk.page.keyboard.type("n")
        expect(desk.page.locator(".blank.filled")).to_have_text("n")
        expect(desk.page.locator(".curve.answer")).to_have_attribute("data-id", "n")
        desk.page.get_by_role("button", name="Hand in now").click()
        desk.page.get_by_role("link", name="Full report").click()
        desk.page.wait_for_url("**/hand-ins/*")
        expect(desk.page.locator(".more-of-verdict").first).to_contain_text(
            "You pointed out n as m, but it is not true"
        )

    def test_an_answer_is_pointed_at_and_the_blanks_emptied_again(self, gable):
        gable.page.get_by_role("button", name="Hand in").click()
        gable.page.mouse.click(*gable.at(9, 4))  # there is nothing here
        expect(gable.page.locator(".blank.filled")).to_have_count(0)
        x, y = gable.point("F")
        ax, ay = gable.point("A")
        gable.page.mouse.click((x + ax) / 2, (y + ay) / 2)
        expect(gable.page.locator(".blank.filled")).to_have_text("m")
        expect(gable.page.get_by_role("button", name="Hand in now")).to_be_focused()
        gable.page.keyboard.press("Escape")
        expect(gable.page.locator(".blank.filled")).to_have_count(0)
        expect(gable.page.locator(".handing-in")).to_be_visible()
        gable.page.keyboard.press("Escape")
        expect(gable.page.locator(".handing-in")).to_be_hidden()

    def test_taking_a_class_tool_is_not_yet_handing_in(self, gable):
        gable.page.get_by_role("button", name="Hand in").click()
        gable.take("line")
        expect(gable.page.locator(".handing-in")).to_be_hidden()


class TestSelection:
    def test_a_frame_gathers_what_it_touches(self, gable):
        gable.page.get_by_role("button", name="Select several").click()
        x, y = gable.point("F")
        dragged(gable, (x - 90, y - 60), (x + 60, y + 60))
        strip = gable.page.locator(".selected-objects")
        expect(strip).to_contain_text("selected")
        strip.get_by_role("button", name="Dashed").click()
        last = gable.stored()[-1]["operation"]
        assert last["dress"] == {"style": "dashed"} and {"d", "e", "F", "m"} <= set(last["id"])
        expect(gable.page.locator(".curve.dashed[data-id=d]")).to_have_count(1)
        gable.page.get_by_role("button", name="Undo").click()
        expect(gable.page.locator(".curve.dashed")).to_have_count(0)

    def test_names_gather_too_and_hiding_takes_one_undo(self, gable):
        gable.page.keyboard.press("g")
        for name in "cde":
            gable.page.keyboard.type(name)
        gable.page.locator(".selected-objects").get_by_role("button", name="Hide").click()
        expect(gable.page.locator("circle.curve")).to_have_count(0)
        expect(gable.page.locator(".selected-objects")).to_be_hidden()
        gable.page.get_by_role("button", name="Undo").click()
        expect(gable.page.locator("circle.curve")).to_have_count(3)

    def test_removing_several_says_what_goes_along(self, gable):
        gable.page.keyboard.press("g")
        gable.page.keyboard.type("de")
        gable.page.keyboard.press("Delete")
        expect(gable.page.get_by_role("alertdialog")).to_contain_text("Removing d and e also removes F and m.")
        gable.page.get_by_role("button", name="Remove all 4").click()
        expect(gable.page.locator(".step-list li[data-step]")).to_have_count(2)
        assert gable.stored()[-1]["operation"] == {"op": "remove", "id": ["d", "e"]}

    def test_given_objects_are_not_selected(self, gable):
        gable.page.keyboard.press("g")
        gable.page.keyboard.type("B")
        gable.page.keyboard.press("Enter")
        expect(gable.page.locator(".selected-objects")).to_be_hidden()
        gable.page.keyboard.press("Escape")
        expect(gable.page.locator(".sentence")).to_contain_text("Take a tool")


class TestNotes:
    def test_a_note_is_written_dragged_rewritten_and_removed(self, gable):
        gable.page.keyboard.press("n")
        gable.page.mouse.click(*gable.at(7, 6.5))
        gable.page.keyboard.type("The circles must have one radius, or else it leans")
        gable.page.keyboard.press("Enter")
        note = gable.page.locator("text.note")
        expect(note.locator("tspan")).to_have_count(2)
        expect(note).to_be_visible()
        # In one go, since the board draws it anew with every change.
        x, y = gable.page.evaluate(
            "(({ x, y }) => [x, y])(document.querySelector('text.note').getBoundingClientRect())"
        )
        dragged(gable, (x + 20, y + 8), (x - 60, y + 28))
        assert gable.stored()[-1]["operation"]["at"] != gable.stored()[-2]["operation"]["at"]
        gable.page.get_by_label("Note", exact=True).fill("One radius")
        gable.page.get_by_label("Note", exact=True).press("Tab")
        expect(note).to_have_text("One radius")
        gable.saved()
        gable.page.reload()
        expect(note).to_have_text("One radius")
        gable.page.get_by_role("button", name="Remove the note One radius").click()
        expect(note).to_have_count(0)

    def test_notes_come_along_when_handing_in(self, gable):
        gable.page.keyboard.press("n")
        gable.page.keyboard.type("3, 6")
        gable.page.keyboard.press("Enter")
        gable.page.keyboard.type("here it halves")
        gable.page.keyboard.press("Enter")
        gable.saved()
        gable.hand_in()
        expect(gable.page.locator(".picture text.note").first).to_have_text("here it halves")


class TestMeasures:
    def test_a_ratio_of_two_lengths(self, gable):
        gable.take("ratio")
        for name in "ABAC":
            gable.page.keyboard.type(name)
        expect(gable.page.locator(".measures li")).to_contain_text("AB : AC")
        expect(gable.page.locator("text.measure")).to_have_text("AB : AC = 1.076")  # 7.018 cm : 6.519 cm

    def test_the_distance_of_a_point_from_a_line(self, gable):
        gable.take("length")
        gable.page.keyboard.type("B")
        gable.page.keyboard.type("q")
        expect(gable.page.locator(".measures li")).to_contain_text("B from q")
        # twice the triangle ABC over AC
        expect(gable.page.locator("text.measure")).to_have_text(
            f"{abs(7 * 5.5 - 0.5 * 3.5) / (3.5**2 + 5.5**2) ** 0.5:.2f} cm"
        )
