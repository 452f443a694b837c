"""Looking after the school: people, who teaches which class, its library, what was done, what is kept, how it runs."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from typing import Any

from flask import current_app, flash, redirect, render_template, request, url_for
from flask import session as browser_session
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from ... import version
from ...documents.joining import ChangedElsewhere
from ...documents.language import gettext as _
from ...documents.language import marked
from ...documents.reading import JsonObject
from ...school import storage
from ...school.models import Person, SchoolClass
from ...school.people import accounts, audit, directory, naming, personal_data, signing_in, teaching
from ...school.people import retention as keeping
from ...school.refused import Refused
from ...school.results import scale
from ...school.states import Action, SignInOutcome
from ...school.tables import newest_seen, work_with
from ...school.tasks import sheets
from ..access import administrators_only, any_class, any_teacher, me, shared_sheet
from ..addresses import address_of
from ..database import locked, session
from ..figures import draft_figure
from ..jobs import background
from ..made_from import joined_form
from ..reading import number_of


@administrators_only
def people() -> str:
    """Everybody who teaches, and who is invited."""
    return show_people(link=browser_session.pop(LINK, None))


LINK = "new_link"
"""In the session of the browser: a link that was just made, and for whom."""


def show_people(**context: object) -> str:
    """The page of people; with a link that was just made, or what is wrong."""
    return render_template(
        "administration/people.html",
        **searched(directory.all_teachers),
        waiting=accounts.waiting_links(session()),
        students=directory.count_students(session()),
        **context,
    )


LAST_PAGE = 10_000


def searched(look: Callable[..., directory.Page[Any]]) -> dict[str, Any]:
    """The page of a list that the address asks for, of what is searched for."""
    search, page = request.args.get("search", ""), number_of(request.args.get("page"))
    return {"found": look(session(), search, min(page, LAST_PAGE)), "search": search}


@administrators_only
def invite() -> ResponseReturnValue:
    """Make a link by which a teacher makes an account."""
    name = request.form.get("name", "")
    try:
        token = accounts.invite(session(), me(), name, "administrator" in request.form)
    except Refused as wrong:
        return show_people(trouble=str(wrong), typed=name), 422
    return on_with_link(token, name)


def on_with_link(token: str, name: str) -> Response:
    """On to the page of people, which shows a link that was just made, once: loading it again makes and shows none."""
    browser_session[LINK] = {"address": address_of("welcome.link", token=token), "name": name}
    return redirect(url_for("administration.people"))


@administrators_only
def reset(person_id: int) -> ResponseReturnValue:
    """Make a link by which a teacher chooses a new password."""
    person = any_teacher(person_id)
    return on_with_link(accounts.reset(session(), me(), person), person.name)


@administrators_only
def withdraw(link_id: int) -> ResponseReturnValue:
    """Let an invitation work no more."""
    try:
        accounts.withdraw(session(), me(), link_id)
    except Refused as wrong:
        return show_people(trouble=str(wrong)), 422
    flash(_("The link works no more."))
    return redirect(url_for("administration.people"))


@administrators_only
def set_administrator(person_id: int) -> ResponseReturnValue:
    """Let somebody look after the school, or no longer."""
    person = any_teacher(person_id)
    try:
        accounts.make_administrator(session(), me(), person, "administrator" in request.form)
    except Refused as wrong:
        return show_people(trouble=str(wrong)), 422
    return redirect(url_for("administration.people"))


@administrators_only
def set_presence(person_id: int) -> ResponseReturnValue:
    """Somebody has left, or is back."""
    person = any_teacher(person_id)
    try:
        if "left" in request.form:
            accounts.leave(session(), me(), person)
        else:
            accounts.come_back(session(), me(), person)
    except Refused as wrong:
        return show_people(trouble=str(wrong)), 422
    return redirect(url_for("administration.people"))


@administrators_only
def person_data(person_id: int) -> JsonObject:
    """Everything that is kept about a teacher, as JSON."""
    person = any_teacher(person_id)
    audit.record(session(), me(), Action.EXPORTED, person.id)
    return personal_data.of_teacher(session(), person)


@administrators_only
def ask_erase(person_id: int) -> str:
    """Say what erasing a teacher means, and ask who takes over."""
    return show_erasing(any_teacher(person_id))


def show_erasing(person: Person, trouble: str | None = None) -> str:
    """The question before a teacher is erased."""
    return render_template(
        "administration/erase.html",
        person=person,
        belongings=directory.belongings_of(session(), person),
        heirs=[one for one in teaching.at_work(session()) if one.id != person.id],
        trouble=trouble,
    )


@administrators_only
def erase(person_id: int) -> ResponseReturnValue:
    """Erase a teacher; classes and tasks go to another."""
    person, name = any_teacher(person_id), any_teacher(person_id).name
    try:
        accounts.erase_teacher(session(), me(), person, any_teacher(number_of(request.form.get("heir"))))
    except Refused as wrong:
        return show_erasing(person, str(wrong)), 422
    flash(_("%(name)s is erased.", name=name))
    return redirect(url_for("administration.people"))


@administrators_only
def classes() -> str:
    """A page of all classes, or of those that are searched for."""
    return render_template("administration/classes.html", **searched(directory.all_classes))


@administrators_only
def ask_teachers(class_id: int) -> str:
    """The page that asks who teaches a class."""
    return show_teachers(any_class(class_id))


def show_teachers(school_class: SchoolClass, trouble: str | None = None) -> str:
    """The page of who teaches a class."""
    return render_template(
        "administration/teachers.html",
        school_class=school_class,
        stored=teachers_as_typed(school_class),
        teachers=teaching.at_work(session()),
        trouble=trouble,
    )


def teachers_as_typed(school_class: SchoolClass) -> dict[str, str | list[str]]:
    """Who teaches a class, as it would be filled in."""
    return {"teacher": str(school_class.teacher_id), "colleague": [str(one.id) for one in school_class.colleagues]}


@administrators_only
def set_teachers(class_id: int) -> ResponseReturnValue:
    """Whose a class is, and who teaches it besides."""
    school_class = locked(any_class(class_id))
    titles = {"teacher": _("whose class it is"), "colleague": _("who teaches it besides")}
    try:
        form = joined_form(teachers_as_typed(school_class), titles)
        teacher = any_teacher(number_of(form.get("teacher")))
        if teacher.id != school_class.teacher_id:
            teaching.hand_over(session(), me(), school_class, teacher, stay=False)
        teaching.set_colleagues(session(), me(), school_class, [number_of(one) for one in form.getlist("colleague")])
    except (Refused, ChangedElsewhere) as wrong:
        return show_teachers(school_class, str(wrong)), 422
    flash(_("%(name)s is taught by %(teacher)s.", name=school_class.name, teacher=teacher.name))
    return redirect(url_for("administration.classes"))


@administrators_only
def library() -> str:
    """What teachers share with the whole school."""
    shared = [(one, draft_figure(one.document)) for one in sheets.shared(session())]
    return render_template("administration/library.html", shared=shared)


@administrators_only
def unshare(sheet_id: int) -> Response:
    """Take a task out of the school's library; its owner keeps it."""
    sheet = shared_sheet(sheet_id)
    sheet.shared = False
    flash(_("%(title)s is no longer in the school’s library. Its owner keeps it.", title=sheet.title))
    return redirect(url_for("administration.library"))


@administrators_only
def log() -> str:
    """What was done that others may ask about."""
    before = number_of(request.args["before"]) if "before" in request.args else None
    found = audit.entries(session(), before)
    done = zip(found, audit.in_words(session(), found), strict=True)
    return render_template("administration/log.html", entries=found, done=list(done), shown=audit.SHOWN)


OUTCOMES = {
    SignInOutcome.SUCCEEDED: marked("signed in"),
    SignInOutcome.HALFWAY: marked("password right, code asked for"),
    SignInOutcome.CONFIRMED: marked("own password typed again, right"),
    SignInOutcome.FAILED: marked("failed"),
    SignInOutcome.PUT_OFF: marked("had to wait"),
}
"""How a try to sign in ended, in words."""


@administrators_only
def sign_ins() -> str:
    """Who has tried to sign in, when and from where, and what came of it."""
    before = number_of(request.args["before"]) if "before" in request.args else None
    found = signing_in.record(session(), before)
    return render_template("administration/sign_ins.html", entries=found, words=OUTCOMES, shown=signing_in.SHOWN)


@administrators_only
def retention() -> str:
    """What the school no longer needs."""
    return show_retention()


def show_retention(trouble: str | None = None) -> str:
    """The page of what is old, and for how long things are kept."""
    return render_template(
        "administration/retention.html",
        months=keeping.months(session()),
        outdated=keeping.outdated(session()),
        trouble=trouble,
    )


@administrators_only
def set_retention() -> ResponseReturnValue:
    """Choose for how long things are kept."""
    try:
        keeping.set_months(session(), me(), request.form.get("months", "").strip())
    except Refused as wrong:
        return show_retention(str(wrong)), 422
    return redirect(url_for("administration.retention"))


@administrators_only
def erase_outdated() -> ResponseReturnValue:
    """Erase what is old, as it was shown."""
    found = keeping.outdated(session())
    shown = f"{len(found.classes)} {len(found.students)} {found.sign_ins}"
    if request.form.get("shown") != shown:
        return show_retention(_("What is old has changed meanwhile; look at it again.")), 409
    keeping.erase(session(), me(), found)
    background.after_this(background.erase_outdated)
    flash(_("It is erased. Backups hold it until they are thrown away too."))
    return redirect(url_for("administration.retention"))


@administrators_only
def marks() -> str:
    """The school's own scale of marks."""
    return show_marks(scale.scale_of(session()).as_text())


def show_marks(text: str, trouble: str | None = None) -> str:
    """The page of the scale of marks, and of how names stand in lists."""
    return render_template(
        "administration/marks.html",
        text=text,
        stored=scale.scale_of(session()).as_text(),
        trouble=trouble,
        orders=naming.ORDER_WORDS,
        order=naming.name_order(session()),
    )


@administrators_only
def set_scale() -> ResponseReturnValue:
    """Choose the school's own scale of marks."""
    text = request.form.get("scale", "")
    try:
        form = joined_form({"scale": scale.scale_of(session()).as_text()}, {"scale": _("the scale of marks")})
        scale.set_scale(session(), me(), form.get("scale", ""))
    except (Refused, ChangedElsewhere) as wrong:
        return show_marks(text, str(wrong)), 422
    flash(_("The scale of marks is saved."))
    return redirect(url_for("administration.marks"))


@administrators_only
def set_name_order() -> ResponseReturnValue:
    """Choose by which name the lists of the school go."""
    try:
        naming.set_name_order(session(), me(), request.form.get("order", ""))
    except Refused as wrong:
        return show_marks(scale.scale_of(session()).as_text(), str(wrong)), 422
    flash(_("Lists go by that name from now on."))
    return redirect(url_for("administration.marks"))


@administrators_only
def status() -> str:
    """Version, storage and health."""
    data = current_app.config["DATA"]
    counted = directory.counts(session())
    return render_template(
        "administration/status.html",
        version=version(),
        revision=newest_seen(session()),
        works_with_tables=work_with(session(), current_app.config["REVISION"]),
        disk=shutil.disk_usage(data) if data else None,
        tables=storage.size_of_tables(session()),
        backup=storage.last_backup(session()),
        counts={
            _("Students"): counted.students,
            _("Classes"): counted.classes,
            _("Works"): counted.works,
            _("Steps kept"): counted.operations,
        },
    )
