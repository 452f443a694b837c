"""Texts are gathered for translation, and said in the language of whoever asks."""

from contextlib import contextmanager
from gettext import NullTranslations
from pathlib import Path

from babel.messages.extract import extract_from_dir

from widepin.documents.language import catalogue
from widepin.documents.wording import amounts

ROOT = Path(__file__).parents[2]


class Backwards(NullTranslations):
    """A language in which every text is said backwards, but for its values."""

    def ngettext(self, one, several, count):
        return "%(n)s " + (one if count == 1 else several).split(" ", 1)[1][::-1]


@contextmanager
def spoken(translations):
    token = catalogue.set(translations)
    yield
    catalogue.reset(token)


def test_another_language_changes_what_is_said():
    assert amounts.moves(2) == "2 moves"
    with spoken(Backwards()):
        assert (amounts.moves(2), amounts.moves(1)) == ("2 sevom", "1 evom")


def gathered():
    ways = [("**.py", "python"), ("**.html", "jinja2")]
    for _, _, message, _, _ in extract_from_dir(ROOT / "src/widepin", ways):
        yield from message if isinstance(message, tuple) else [message]


def test_texts_of_pages_and_of_the_core_are_gathered():
    texts = set(gathered())
    assert {"%(n)s moves", "Hand in now", "Undo", "Task library", "Prerequisite"} <= texts
    assert len(texts) > 200
