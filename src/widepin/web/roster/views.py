"""A class as such: who is in it, the codes they sign in by, and what becomes of the class."""

from __future__ import annotations

from functools import partial
from itertools import zip_longest
from typing import Any

from flask import current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ...documents import clock
from ...documents.formats.roster import (
    COLUMN_WORDS,
    LONGEST_NAME,
    MAX_LINES,
    Column,
    Name,
    decoded,
    read_roster,
    write_roster,
)
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import ngettext
from ...documents.reading import Unreadable
from ...documents.wording import amounts
from ...school.joining import courses, scores
from ...school.models import SchoolClass, class_code
from ...school.people import audit, directory, personal_data, removing, roster, teaching
from ...school.refused import Refused
from ...school.states import Action
from ...school.tasks import assigning
from ..access import led_class, me, on_clock_of, own_class, own_student, present_student, teachers_only
from ..classes.views import show_classes
from ..database import locked, session
from ..downloads import download
from ..made_from import joined_form
from ..printed.printing import printed
from ..reading import number_of
from ..removed.notice import in_the_bin


@teachers_only
def create() -> ResponseReturnValue:
    """Begin a class."""
    name = request.form.get("name", "")
    try:
        made = roster.new_class(session(), me(), name)
    except Refused as wrong:
        return show_classes(name, str(wrong)), 422
    flash(_("%(name)s is there. Now add its students.", name=made.name))
    return redirect(url_for("roster.index", class_id=made.id))


@teachers_only
def index(class_id: int) -> str:
    """The students of a class with their codes, and how to add some."""
    return show(own_class(class_id))


def show(school_class: SchoolClass, **context: Any) -> str:
    """The roster page."""
    return render_template(
        "roster/index.html",
        school_class=school_class,
        code_of=code_of(),
        former=roster.former_students(session(), school_class),
        others=[one for one in directory.present_classes_of(session(), me()) if one.id != school_class.id],
        teachers=[one for one in teaching.at_work(session()) if one.id != school_class.teacher_id],
        colleagues_stored=[str(one.id) for one in school_class.colleagues],
        courses=courses.of_class(session(), school_class),
        scores_waiting=scores.waiting_of(session(), school_class),
        **context,
    )


@teachers_only
def read(class_id: int) -> ResponseReturnValue:
    """Show what a pasted list or a file would add; nothing is stored yet."""
    school_class = own_class(class_id)
    text = request.form.get("list", "")
    if "back" in request.form:
        return show(school_class, text=text)
    columns = [Column(one) for one in request.form.getlist("column") if one in list(Column)]
    try:
        if file := request.files.get("file"):
            if text.strip():
                return show(school_class, text=text, trouble=_("Take either the list that you typed or the file.")), 422
            text = decoded(file.read())
        read = read_roster(text, {student.name for student in school_class.students}, columns)
    except Unreadable as wrong:
        return show(school_class, text=text, trouble=str(wrong)), 422
    return render_template(
        "roster/read.html", school_class=school_class, read=read, text=text, column_words=COLUMN_WORDS
    )


@teachers_only
def add(class_id: int) -> ResponseReturnValue:
    """Add students by name; lines that are empty or not ticked are left out."""
    school_class = own_class(class_id)
    given, family = (
        [" ".join(name.split()) for name in request.form.getlist(part)] for part in ("given_name", "family_name")
    )
    names = [Name(*parts) for parts in zip_longest(given, family, fillvalue="")]
    ticked = request.form.getlist("take")
    wanted = [name for index, name in enumerate(names) if str(name) and (not ticked or str(index) in ticked)]
    if not wanted:
        return show(school_class, trouble=_("Write at least one name.")), 422
    if len(wanted) > MAX_LINES:
        return show(school_class, trouble=_("Add %(most)s students at most at once.", most=MAX_LINES)), 422
    if any(len(str(name)) > LONGEST_NAME for name in wanted):
        return show(school_class, trouble=_("A name has %(most)s characters at most.", most=LONGEST_NAME)), 422
    added = roster.add_students(session(), school_class, wanted)
    flash(ngettext("%(name)s was added.", "%(n)s students were added.", len(added), name=added[0].name, n=len(added)))
    return redirect(url_for("roster.index", class_id=school_class.id))


@teachers_only
def as_csv(class_id: int) -> Response:
    """The roster as CSV, codes and all; it can be read back."""
    school_class = own_class(class_id)
    rows = [
        (student.family_name, student.given_name, student.login, school_class.code, code_of()(student))
        for student in school_class.students
    ]
    return download(
        write_roster((_("family name"), _("given name"), "login", _("class code"), _("personal code")), rows),
        f"{school_class.name}.csv",
        "text/csv",
    )


@teachers_only
def name_cards(class_id: int) -> Response:
    """A card to cut out for every student: where and with which codes to sign in."""
    school_class = own_class(class_id)
    return printed(
        _("%(name)s, name cards", name=school_class.name),
        _("name cards"),
        {
            "class_name": school_class.name,
            "class_code": school_class.code,
            "students": [{"name": student.name, "code": code_of()(student)} for student in school_class.students],
            "address": current_app.config["ADDRESS"] or request.host_url,
        },
    )


@teachers_only
def class_data(class_id: int) -> ResponseReturnValue:
    """Everything that is kept about the students of a class, and was made in it, as JSON."""
    school_class = own_class(class_id)
    audit.record(session(), me(), Action.EXPORTED, whole_class=school_class.id)
    return personal_data.of_class(session(), school_class)


@teachers_only
def student_data(class_id: int, person_id: int) -> ResponseReturnValue:
    """Everything that is kept about a student, in whatever class it was made, as JSON."""
    student = own_student(own_class(class_id), person_id)
    audit.record(session(), me(), Action.EXPORTED, student.id)
    return personal_data.of_student(session(), student)


@teachers_only
def rename_class(class_id: int) -> ResponseReturnValue:
    """Give a class another name."""
    school_class = locked(own_class(class_id))
    try:
        form = joined_form({"name": school_class.name}, {"name": _("the name")})
        roster.rename_class(session(), school_class, form.get("name", ""))
    except (Refused, ChangedElsewhere) as wrong:
        return show(school_class, trouble=str(wrong)), 422
    return redirect(url_for("roster.index", class_id=school_class.id))


@teachers_only
def set_time_zone(class_id: int) -> ResponseReturnValue:
    """Say and read the times of the class in a time zone of its own, or in the school's."""
    school_class = locked(own_class(class_id))
    try:
        roster.set_time_zone(school_class, request.form.get("time_zone", ""))
    except Refused as wrong:
        return show(school_class, trouble=str(wrong)), 422
    on_clock_of(school_class)
    flash(_("Times of %(name)s are those of %(zone)s.", name=school_class.name, zone=clock.zone()))
    return redirect(url_for("roster.index", class_id=school_class.id))


@teachers_only
def archive(class_id: int) -> Response:
    """Put a class away, or take it out again. Students do not see its tasks meanwhile; nothing is lost."""
    school_class = own_class(class_id)
    roster.archive(school_class)
    flash(
        _("%(name)s is archived; nothing of it is lost.", name=school_class.name)
        if school_class.archived
        else _("%(name)s is back.", name=school_class.name)
    )
    return redirect(url_for("classes.index"))


@teachers_only
def set_colleagues(class_id: int) -> ResponseReturnValue:
    """Who teaches the class besides the teacher whose it is."""
    school_class = locked(led_class(class_id))
    stored = {"colleague": [str(one.id) for one in school_class.colleagues]}
    try:
        form = joined_form(stored, {"colleague": _("who teaches the class")})
    except ChangedElsewhere as wrong:
        return show(school_class, trouble=str(wrong)), 422
    chosen = [number_of(number) for number in form.getlist("colleague")]
    teaching.set_colleagues(session(), me(), school_class, chosen)
    flash(_("Who teaches %(name)s is saved.", name=school_class.name))
    return redirect(url_for("roster.index", class_id=school_class.id))


@teachers_only
def copy(class_id: int) -> ResponseReturnValue:
    """A class with the same tasks, for a new year."""
    school_class = own_class(class_id)
    try:
        made = assigning.copy_class(session(), school_class, request.form.get("name", ""), "students" in request.form)
    except Refused as wrong:
        return show(school_class, trouble=str(wrong)), 422
    flash(
        _(
            "%(copy)s has the %(count)s tasks of %(original)s, without dates.",
            copy=made.name,
            count=len(made.assignments),
            original=school_class.name,
        )
    )
    return redirect(url_for("roster.index", class_id=made.id))


@teachers_only
def ask_renew_all(class_id: int) -> str:
    """Say what new codes for everybody mean."""
    school_class = own_class(class_id)
    return render_template(
        "confirm.html",
        title=_("New codes for everybody in %(name)s?", name=school_class.name),
        lost=[
            _(
                "the class code %(code)s and all %(count)s personal codes: printed cards become void",
                code=school_class.code,
                count=len(school_class.students),
            ),
            _("being signed in: everybody has to sign in again, with the new codes"),
        ],
        keep=_("What the students have built stays."),
        action=url_for("roster.renew_all", class_id=school_class.id),
        deed=_("Make new codes"),
        stay=_("Keep the codes"),
        back=url_for("roster.index", class_id=school_class.id),
    )


@teachers_only
def renew_all(class_id: int) -> Response:
    """New codes for the class and everybody in it; the old ones end at once."""
    school_class = own_class(class_id)
    school_class.code = class_code()
    for student in school_class.students:
        student.renew_code()
    audit.record(session(), me(), Action.CODES_RENEWED, whole_class=school_class.id)
    flash(_("All codes are new. Print the name cards again."))
    return redirect(url_for("roster.index", class_id=school_class.id))


@teachers_only
def ask_remove_class(class_id: int) -> str:
    """Say what goes with a class."""
    school_class = led_class(class_id)
    works, attempts = roster.done_in(session(), school_class)
    return render_template(
        "confirm.html",
        title=_("Delete %(name)s?", name=school_class.name),
        lost=[
            _("%(count)s students, unless they are in another class", count=len(school_class.students)),
            _("%(works)s works with %(attempts)s hand-ins and their verdicts", works=works, attempts=attempts),
        ],
        consequence=_("This goes to Recently deleted, and is erased after 30 days:"),
        keep=_("Archiving keeps everything of the class."),
        export=url_for("roster.class_data", class_id=school_class.id),
        action=url_for("roster.remove_class", class_id=school_class.id),
        deed=_("Delete %(name)s", name=school_class.name),
        back=url_for("roster.index", class_id=school_class.id),
    )


@teachers_only
def remove_class(class_id: int) -> Response:
    """Delete a class and all that was done in it."""
    school_class = led_class(class_id)
    name, count = school_class.name, len(school_class.students)
    audit.record(session(), me(), Action.CLASS_ERASED, school_class.id, students=count)
    removing.remove_class(session(), me(), school_class)
    flash(in_the_bin(_("%(name)s is deleted.", name=name)))
    return redirect(url_for("classes.index"))


@teachers_only
def rename(class_id: int, person_id: int) -> ResponseReturnValue:
    """Give a student another name."""
    school_class = own_class(class_id)
    student = present_student(school_class, person_id)
    try:
        name = Name(request.form.get("given_name", "").strip(), request.form.get("family_name", "").strip())
        roster.rename_student(student, name)
    except Refused as wrong:
        return show(school_class, trouble=str(wrong)), 422
    return redirect(url_for("roster.index", class_id=class_id))


@teachers_only
def move(class_id: int, person_id: int) -> Response:
    """Put a student into another class of this teacher's."""
    source = own_class(class_id)
    student = present_student(source, person_id)
    target = own_class(number_of(request.form.get("to")))
    roster.move_student(session(), student, source, target)
    flash(
        _(
            "%(name)s is in %(target)s now. Works stay with %(source)s.",
            name=student.name,
            target=target.name,
            source=source.name,
        )
    )
    return redirect(url_for("roster.index", class_id=class_id))


@teachers_only
def ask_renew(class_id: int, person_id: int) -> str:
    """Say what a new code for a student means."""
    student = present_student(own_class(class_id), person_id)
    return render_template(
        "confirm.html",
        title=_("A new code for %(name)s?", name=student.name),
        lost=[
            _("the code %(code)s: the printed card becomes void", code=code_of()(student)),
            _("being signed in: %(name)s has to sign in again, with the new code", name=student.name),
        ],
        keep=_("What was built stays."),
        action=url_for("roster.renew", class_id=class_id, person_id=person_id),
        deed=_("Make a new code"),
        stay=_("Keep the code"),
        back=url_for("roster.index", class_id=class_id),
    )


@teachers_only
def renew(class_id: int, person_id: int) -> Response:
    """A new personal code; the old one ends at once."""
    student = present_student(own_class(class_id), person_id)
    student.renew_code()
    audit.record(session(), me(), Action.CODES_RENEWED, student.id)
    flash(_("%(name)s’s code is %(code)s now.", name=student.name, code=code_of()(student)))
    return redirect(url_for("roster.index", class_id=class_id))


@teachers_only
def remove(class_id: int, person_id: int) -> Response:
    """Take a student out of a class; nothing that was made is erased."""
    school_class = own_class(class_id)
    student = present_student(school_class, person_id)
    removing.take_out(session(), me(), school_class, student)
    said = _("%(name)s is no longer in %(class_name)s.", name=student.name, class_name=school_class.name)
    flash(in_the_bin(said, _("Works stay. It can be undone:")))
    return redirect(url_for("roster.index", class_id=class_id))


@teachers_only
def ask_erase(class_id: int, person_id: int) -> str:
    """Say what goes with a student, in whatever class it was made."""
    student = own_student(own_class(class_id), person_id)
    works = [
        _(
            "%(works)s with %(attempts)s in %(class_name)s of %(teacher)s",
            works=amounts.works(works),
            attempts=amounts.attempts(attempts),
            class_name=school_class.name,
            teacher=school_class.teacher.name,
        )
        for school_class, works, attempts in removing.what_hangs_on(session(), student)
    ]
    classes = [_("being in %(class_name)s", class_name=one.name) for one in student.classes]
    return render_template(
        "confirm.html",
        title=_("Erase %(name)s?", name=student.name),
        lost=[
            *(works or [_("no works")]),
            _("what was entered for %(name)s on paper, and other marks", name=student.name),
            *classes,
            _("the account, with its codes"),
        ],
        consequence=_("This goes to Recently deleted, and is erased after 30 days:"),
        keep=_("Taking out of the class keeps all of it."),
        export=url_for("roster.student_data", class_id=class_id, person_id=person_id),
        action=url_for("roster.erase", class_id=class_id, person_id=person_id),
        deed=_("Erase %(name)s", name=student.name),
        back=url_for("roster.index", class_id=class_id),
    )


@teachers_only
def erase(class_id: int, person_id: int) -> Response:
    """Erase a student with everything, after 30 days in the bin."""
    school_class = own_class(class_id)
    student = own_student(school_class, person_id)
    name = student.name
    removing.remove_student(session(), me(), school_class, student)
    flash(in_the_bin(_("%(name)s is removed with all works.", name=name)))
    return redirect(url_for("roster.index", class_id=class_id))


def code_of() -> partial[str]:
    """What tells a student's personal code."""
    return partial(roster.personal_code, current_app.config["CODES_KEY"])
