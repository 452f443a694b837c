"""The cards of reasons: one for each rule, with what it says and its figure."""

import re
import xml.etree.ElementTree as ElementTree

import pytest

from widepin.documents.reasons.reason_cards import CONVERSES, anchor_of, card_of, cards
from widepin.documents.reasons.reason_pictures import HEIGHT, WIDTH, picture_of, shipped
from widepin.documents.reasons.reason_proofs import OWN_PROOFS
from widepin.reason.rules import RULES
from widepin.reason.rules import RuleName as N

EVERY = [card for _topic, found in cards() for card in found]


def test_there_is_one_card_for_each_rule_under_an_address_of_its_own():
    assert sorted(card.key for card in EVERY) == sorted(RULES)
    assert len({card.anchor for card in EVERY}) == len(EVERY)


@pytest.mark.parametrize("card", EVERY, ids=lambda card: card.key)
def test_a_card_says_its_rule_in_a_sentence_about_what_its_figure_shows(card):
    assert card.statement.endswith(".") and "_" not in card.statement and card.title[0].isupper()
    if RULES[card.key].premises:
        picture = ElementTree.fromstring(card.figure)
        named = {one.text for one in picture.findall("text")}
        assert named == {letter for letter in shipped()[card.key] if letter.isupper()}
        for one in picture.findall("circle[@class='point']"):
            assert 0 <= float(one.get("cx")) <= WIDTH and 0 <= float(one.get("cy")) <= HEIGHT


def test_the_letters_of_a_figure_are_those_of_the_row():
    for key, objects in shipped().items():
        rule = RULES[key]
        words = (word for _rel, terms in (*rule.premise_patterns, rule.conclusion_pattern) for word in terms)
        assert {letter for word in words for letter in word} <= set(objects)
    assert set(shipped()) == {key for key, rule in RULES.items() if rule.premises}, "run bin/widepin tool ship_reasons"


def test_a_converse_leads_back():
    for one, other in CONVERSES.items():
        assert CONVERSES[other] == one and card_of(one).converse_anchor == anchor_of(other)


def test_what_follows_is_drawn_as_such():
    picture = ElementTree.fromstring(card_of("base angles of an isosceles triangle").figure)
    kinds = [one.get("class") for one in picture.findall("path")]
    assert kinds.count("mark follows") == 2 and kinds.count("mark") == 2 and "side" in kinds


def test_own_proofs_speak_of_the_letters_of_their_row():
    for key, lines in OWN_PROOFS.items():
        known = set(shipped()[key]) | {"N", "M", "O", "P", "Q", "D"}  # some are brought in by "let"
        for line in lines:
            assert line.endswith(".")
            names = re.findall(r"(?<![A-Za-z])[A-Z]{1,3}(?![a-z])", line)
            assert all(
                letter in known for name in names if name not in ("A", "SAS", "SSS", "AAS") for letter in name
            ), line


def test_triangles_of_equal_areas_are_filled():
    for name in (
        N.AREA_BETWEEN_PARALLELS,
        N.AREA_BY_MEDIAN,
        N.AREA_ON_MEDIAN,
        N.AREA_OF_EQUAL_BASES,
        N.AREA_OF_CONGRUENT,
    ):
        assert picture_of(RULES[name]).count('class="area"') == 2
    assert 'class="area"' not in picture_of(RULES[N.SSS])
