"""What the teacher's guide says, section by section. Words in it are those of docs/glossary.md."""

from __future__ import annotations

from dataclasses import dataclass

from ...documents.language import marked


@dataclass(frozen=True)
class Section:
    """A section: its heading, what it says, its picture in static/guide, and the page where it is done.

    ``endpoint``: of a page that needs no number, and what the link to it is called.
    """

    key: str
    heading: str
    paragraphs: tuple[str, ...]
    picture: str
    endpoint: str = ""
    link: str = ""


SECTIONS = (
    Section(
        "class",
        marked("A class and its students"),
        (
            marked(
                "Create a class on the page Classes, and add its students: one name per line, or a CSV file as the"
                " school's administration gives it out. The preview says what each column was taken for; change it"
                " where it is wrong, and untick rows that are no students."
            ),
            marked(
                "Students need no e-mail address. Print the name cards: each has the class code, a personal code and"
                " a picture that a phone's camera reads. A lost card is renewed with one click, and the old code ends."
            ),
        ),
        "roster.jpg",
        "classes.index",
        marked("Classes"),
    ),
    Section(
        "library",
        marked("A task from the library"),
        (
            marked(
                "The task library has tasks for every topic, each with a sample solution, the fewest moves known for"
                " it, typical mistakes and what should be known before. Search by words, by topic or by the place in"
                " Euclid's Elements."
            ),
            marked(
                "Assign gives a task to one class or several. Copy and edit makes it a task of your own. Your tasks"
                " can be put into folders and into the archive; shared ones stand in the school's library."
            ),
        ),
        "library.jpg",
        "sheets.library",
        marked("Task library"),
    ),
    Section(
        "making",
        marked("A task from nothing"),
        (
            marked(
                "Making a task has five steps beside the figure: the given figure, the tools, what to construct, the"
                " move limit and feedback, and the check. Each step says what it still lacks."
            ),
            marked(
                "Draw one construction that solves the task, tick what the answer consists of, and let conditions be"
                " suggested. Students may solve it in any other way: the conditions decide, not the sample solution."
            ),
            marked(
                "The check tries the sample solution in every position and looks for wrong works that would pass. What"
                " it finds is shown as a picture, with what to change. A wrong solution can be kept as one that must be"
                " rejected: every change of the task is tried against it."
            ),
        ),
        "making.jpg",
        "sheets.library",
        marked("New task"),
    ),
    Section(
        "assigning",
        marked("Assigning: dates, attempts, what is shown"),
        (
            marked(
                "A task may open at a time and be due at another, on the school's clock. Late works are accepted and"
                " marked, or refused. A prerequisite is a task that has to be solved before. A graded series gives the"
                " task in levels: first only the last move is left to do, then one more each time."
            ),
            marked(
                "You decide what students see: after handing in only the result, the conditions that fail, or where a"
                " construction breaks; and when they see the demonstration, the sample solution and the shortest work"
                " of the class. You also decide how many hints they may take, whether they may ask how many moves are"
                " left, and whether they learn how few are possible. Settings of several tasks are changed together"
                " from the page of the class."
            ),
        ),
        "assign.jpg",
    ),
    Section(
        "board",
        marked("What students do"),
        (
            marked(
                "Students build on the drawing board with mouse, finger or keyboard. The sentence at the top always"
                " says what the tool in hand needs next. Every step is saved at once, also without a network, and can"
                " be undone. Dragging shows at any time whether the figure holds together."
            ),
            marked(
                "When they hand in, the program checks the work exactly in random positions: whether it is correct,"
                " whether it holds when dragged, and how many moves it took. A work placed by eye is told from one"
                " that is constructed."
            ),
        ),
        "board.jpg",
    ),
    Section(
        "overview",
        marked("Watching a lesson"),
        (
            marked(
                "The overview of a task shows every student's work as it grows. Works are grouped by what went wrong,"
                " by method or by moves; the typical mistake of a group is shown once, large. Who is inactive, has"
                " tried in vain or takes back what is drawn stands at the top, under Needs help. Hint shows what the"
                " program would say next; you send it with one click, and it costs the student nothing."
            ),
            marked(
                "Select works or a whole group to write one comment to all of them, to return them for revision, or"
                " to give a score."
            ),
        ),
        "assignment.jpg",
    ),
    Section(
        "projector",
        marked("Discussing works in class"),
        (
            marked(
                "The projector shows one work large, the next with the arrow key. Drag it, play the counterexample, or"
                " overlay the sample solution or another student's work. Names can be hidden."
            ),
        ),
        "projector.jpg",
    ),
    Section(
        "comments",
        marked("Comments, returning, scores"),
        (
            marked(
                "On a work you see each step, where it breaks, and what would fix it. Comment on the whole or on one"
                " object; students answer beside it, and their answers stand on your first page. Keep a comment as a"
                " phrase to use it again."
            ),
            marked(
                "Return a work for revision to allow one more attempt. The score follows a table that you can change"
                " for a task; a score that you override needs a reason, which the student reads."
            ),
        ),
        "hand-in.jpg",
    ),
    Section(
        "why",
        marked("Why it is true"),
        (
            marked(
                "On a sound work, on every task of the library and, from the check on, on your own tasks, the program"
                " shows the proof that a textbook would print, for the student's own way. A line that is pointed at"
                " lights up its objects and the lines it rests on; arrow keys lead from line to line, or it plays along"
                " with the construction. Where it finds none it says so. Whether the places in Euclid’s Elements are"
                " named is set in your account."
            ),
            marked(
                "Let a correct work be followed by Give the reason: students put the lines of their own proof in"
                " order, choose reasons or fill in lines, for a share of the score. Any valid order or reason counts."
            ),
        ),
        "hand-in.jpg",
    ),
    Section(
        "marks",
        marked("Marks"),
        (
            marked(
                "The page of a class has a row for every student and a column for every task. Add columns for other"
                " marks, give weights, and enter work on paper with a photo, or that somebody was absent or excused."
                " Sort by any column, show only who has something open, and take the marks out as CSV."
            ),
            marked(
                "An administrator can enter the school's scale of marks; the marks then have a column of it beside the"
                " mean in percent."
            ),
        ),
        "class.jpg",
    ),
    Section(
        "demonstrations",
        marked("Demonstrations"),
        (
            marked(
                "A demonstration shows a construction frame by frame, with what is done and why. Every task has one"
                " that follows from its sample solution. Change its words, hide, colour, measure, zoom and drag: what"
                " you do becomes part of the frame. A frame may carry a sentence that you speak."
            ),
            marked(
                "Make one from a student's work, or draw one freely. Students go through it at their own pace before,"
                " beside or after the task. It can be printed, or saved as one file that needs no network."
            ),
        ),
        "demonstration.jpg",
    ),
    Section(
        "practice",
        marked("Practice and mastery"),
        (
            marked(
                "Open topics of the library for practice, and students work at their tasks as often as they like:"
                " checked at once, nothing counts. The map shows what is mastered and what is ready to be learned"
                " next, for each student and for the class."
            ),
        ),
        "practice.jpg",
    ),
)

WORDS = {
    "holds when dragged": marked(
        "The construction stays correct when its free points are moved: it is constructed, not placed by eye."
    ),
    "move limit": marked(
        "How many lines and circles a work may take. Points, intersections and measures are no moves; another tool"
        " counts as one."
    ),
    "graded series": marked(
        "A task in levels: on the first the sample solution is drawn but for its last move, on each further level one"
        " more move is left to the student."
    ),
    "prerequisite": marked("A task that has to be solved before this one opens."),
    "class tool": marked(
        "A construction that the class has proved and may use as one step. You decide for which tasks."
    ),
    "feedback": marked(
        "How much students are told after handing in: the result alone, which conditions fail, or where the"
        " construction breaks and what would fix it."
    ),
    "weight": marked("How often a score counts in the mean: 2 counts twice, 0 does not count."),
    "steps given at the start": marked("Steps of the sample solution that are drawn already when students begin."),
    "conditions": marked(
        "What must be true of the answer, wherever the figure is dragged. They decide whether a work is correct; the"
        " sample solution does not."
    ),
    "hint": marked(
        "What a student who is stuck is told of the next step of the shortest way on from the own figure: what to aim"
        " for, which tool and where, and the step itself, one after the other. Each is written down, and shown on the"
        " overview."
    ),
    "give the reason": marked(
        "After a correct work students say why it is right: by the lines of its own proof, found by the program."
    ),
    "demonstration": marked("A construction shown frame by frame, with what is done and why."),
}
"""Words that pages explain where they stand."""
