"""Every row of rules is true: in random figures that have what it asks for, and are as it reads them, what it concludes
is so. A row that is false is found.
"""

from dataclasses import replace

import numpy as np
import pytest
from tools.random_figures import concludes, figures

from tests.amount import many
from widepin.reason.rules import RULES, RuleName

N = RuleName
WITH_PREMISES = [name for name, rule in RULES.items() if rule.premises]
COUNT = many(60, 3000)
"""Figures that are tried for each row."""


def seen(rule, count=COUNT, seed=1):
    """What comes out in figures that are as the row asks for."""
    found = (concludes(figure, rule) for figure in figures(rule, np.random.default_rng(seed), count))
    return [is_so for is_so in found if is_so is not None]


@pytest.mark.parametrize("name", WITH_PREMISES, ids=str)
def test_a_row_is_true_in_random_figures(name):
    outcomes = seen(RULES[name])
    assert outcomes and all(outcomes), f"{outcomes.count(False)} of {len(outcomes)}"


FALSE = {
    "corresponding angles are not those that turn to different sides": replace(
        RULES[N.CORRESPONDING], figure="opposite A D B C, same_way B C P"
    ),
    "two sides and an angle that is not between them": replace(
        RULES[N.SAS], premises="equal_length AB DE, equal_angle BCA EFD, equal_length BC EF"
    ),
    "an inscribed angle is not half the angle at the centre on both arcs": replace(
        RULES[N.HALF_OF_CENTRAL], figure="opposite O C A B"
    ),
    "angles are added only where they lie beside each other": replace(RULES[N.ANGLE_OF_PARTS], figure=""),
    "the crossing of two medians is no midpoint": replace(RULES[N.MEDIANS], conclusion="half AS AM"),
    "crossed sides make no parallelogram": replace(RULES[N.PARALLELOGRAM_BY_SIDES], figure=""),
    "a base angle is not half of what is left of a right angle": replace(RULES[N.BASE_ANGLE], degrees=(45, -0.5)),
    "parts are not divided by adding": replace(RULES[N.RATIO_OF_PARTS], parts="product"),
}


@pytest.mark.parametrize("what", FALSE)
def test_a_false_row_is_found(what):
    assert not all(seen(FALSE[what], count=200))
