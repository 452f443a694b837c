"""What goes onto paper: constructions step by step, the overview of a class, name cards.

All of this happens in a process of its own (``printing.py``), which knows neither the app nor the database: it gets
documents, and says how far it is.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader

from ...documents.formats.construction import read_steps
from ...documents.formats.task import read_task, to_be_shown
from ...documents.language import gettext as _
from ...documents.pictures.step_pictures import step_pictures
from ...documents.pictures.svg import picture
from ...documents.reading import JsonObject
from ...documents.reasons.proofs import explained_proof
from ...documents.wording.verdict_words import results_of
from ...documents.wording.words import Words, instruction, instruction_to_use
from ...judge.task_check import check_task
from ...judge.verdict import Outcome
from ...reason.proving import prove
from ...school.tasks.class_tools import uses_in

WEB = Path(__file__).parents[1]

SIGNS = {"good": "✓", "half": "~", "bad": "×"}
"""What stands before a part of the result in print, where there is no colour."""

Tell = Callable[[str, int, int], None]
"""Takes what is going on, how much of it is done, and how much there is."""

Page = tuple[str, JsonObject]
"""A template and what it is filled with."""


class Pictures:
    """The pictures of a paper, by addresses that only this paper has: what is drawn alike is kept once."""

    def __init__(self) -> None:
        self.kept: dict[str, tuple[bytes, str]] = {}
        self.known: dict[bytes, str] = {}

    def add(self, picture: str | bytes) -> str:
        """The address of an SVG element or a PNG image."""
        content = picture.encode() if isinstance(picture, str) else picture
        if content not in self.known:
            address = self.known[content] = f"picture:{len(self.kept)}"
            self.kept[address] = content, "image/svg+xml" if isinstance(picture, str) else "image/png"
        return self.known[content]


def construction(data: JsonObject, pictures: Pictures, tell: Tell) -> Page:
    """A construction step by step. What a class tool made at once is one step."""
    task, figure = read_task(data["task"]), data["figure"]
    done, steps = read_steps([*figure["given"], *figure["start"]]), read_steps(figure["steps"])
    hidden = hidden_in(figure)
    within = {id_: use for use in uses_in(figure) for id_ in use.ids}
    told = [step for step in steps if step.id not in within or step.id == within[step.id].gives[-1]]
    rows = []
    every = step_pictures(done, steps, [step.id for step in told], hidden, data["arcs"])
    for number, (step, drawn) in enumerate(zip(told, every, strict=True)):
        tell(_("Drawing the steps"), number, len(told))
        words = instruction_to_use(within[step.id], steps) if step.id in within else instruction(step)
        rows.append({"picture": pictures.add(drawn.drawing), "base": pictures.add(drawn.base), "words": words})
    asked, clauses = Words(task).asked()
    return "paper/steps.html", {
        "title": data["title"],
        "whose": data["whose"],
        "text": task.text,
        "asked": asked,
        "conditions": clauses,
        "first": pictures.add(picture(done, steps, data["answer"], None, data["arcs"], hidden=hidden)),
        "steps": rows,
        "proof": lines_of_proof(data, tell),
        "elements": data["elements"],
    }


def lines_of_proof(data: JsonObject, tell: Tell) -> list[JsonObject]:
    """The proof that a construction is right, in words; nothing where it is not sound, or none was found."""
    if not data["proved"]:
        return []
    tell(_("Looking for a proof"), 0, 1)
    task = read_task(data["task"])
    if data["shows"] is not None and not check_task(task, 0).is_solved:
        return []
    task = to_be_shown(task, data["shows"] or ())
    steps = read_steps(data["figure"]["steps"])
    proof = prove(task, steps, data["proved"])
    return explained_proof(proof, task, steps) if proof.is_whole and not proof.trivial else []


def overview(data: JsonObject, pictures: Pictures, tell: Tell) -> Page:
    """The works of a class in groups, with their results."""
    rows: list[JsonObject] = []
    for number, card in enumerate(data["cards"]):
        tell(_("Drawing the works"), number, len(data["cards"]))
        figure = card["figure"]
        given, start, own = (read_steps(figure[part]) for part in ("given", "start", "steps"))
        shown = results_of(Outcome(card["outcome"]), card["moves"], data["budget"]) if card["outcome"] else ()
        rows.append(
            {
                "picture": pictures.add(picture([*given, *start], own, figure["answer"], hidden=hidden_in(figure))),
                "heading": card["heading"],
                "words": card["name"],
                "results": [f"{SIGNS.get(state, '')} {word}" for word, state, _meaning in shown] or ["begun"],
            }
        )
    first = pictures.add(picture(read_steps(data["given"]), ()))
    return "paper/steps.html", {"title": data["title"], "whose": data["whose"], "first": first, "steps": rows}


def name_cards(data: JsonObject, pictures: Pictures, tell: Tell) -> Page:
    """A card to cut out for every student: where and with which codes to sign in."""
    return "paper/name_cards.html", data


def hidden_in(figure: JsonObject) -> set[str]:
    """The ids of the hidden objects of a figure in JSON."""
    return {step["id"] for part in ("given", "start", "steps") for step in figure[part] if step.get("hidden")}


KINDS: dict[str, Callable[[JsonObject, Pictures, Tell], Page]] = {
    "construction": construction,
    "overview": overview,
    "name cards": name_cards,
}


def typeset(kind: str, data: JsonObject, tell: Tell) -> bytes:
    """A document on paper, as PDF."""
    pictures = Pictures()
    template, context = KINDS[kind](data, pictures, tell)
    pages = Environment(loader=FileSystemLoader(WEB / "templates"), autoescape=True, extensions=["jinja2.ext.i18n"])
    pages.install_null_translations(newstyle=True)  # type: ignore[attr-defined]
    library, styles, fonts = ready()

    class Fetcher(library.urls.URLFetcher):  # type: ignore[misc, name-defined]
        """Gives the printing library the pictures of this paper and nothing else, from no file and no server."""

        def fetch(self, url: str, headers: Any = None) -> Any:
            content, kind = pictures.kept[url]
            return library.urls.URLFetcherResponse(url, content, {"Content-Type": kind})

    tell(_("Setting the pages"), 0, 1)
    html = library.HTML(string=pages.get_template(template).render(context), url_fetcher=Fetcher())
    made = html.render(stylesheets=[styles], font_config=fonts)
    for number, page in enumerate(made.pages):
        page.paint = _telling(page.paint, tell, number, len(made.pages))
    return bytes(made.write_pdf())


def _telling(paint: Callable[..., None], tell: Tell, number: int, pages: int) -> Callable[..., None]:
    def painted(*args: Any, **kwargs: Any) -> None:
        tell(_("Drawing the pages"), number, pages)
        paint(*args, **kwargs)

    return painted


@cache
def ready() -> tuple[Any, Any, Any]:
    """The printing library, the style of all papers, and the typefaces, read once: that takes longer than a handout."""
    import weasyprint  # type: ignore[import-untyped]
    import weasyprint.urls  # type: ignore[import-untyped]
    from weasyprint.text.fonts import FontConfiguration  # type: ignore[import-untyped]

    fonts = FontConfiguration()
    base = (WEB / "static").as_uri() + "/"
    styles = weasyprint.CSS(filename=WEB / "templates" / "paper" / "paper.css", base_url=base, font_config=fonts)
    return weasyprint, styles, fonts
