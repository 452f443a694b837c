"""Rows that agree are found whatever their order, and only those."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from widepin.judge.positions.alike import alike

NAN = float("nan")
ROWS = st.lists(st.lists(st.sampled_from([0.0, 1.0, 1.0 + 1e-12, 2.5, -4.0, NAN]), min_size=3, max_size=3), max_size=12)


def one_by_one(rows):
    """The same, by comparing every row with every other."""
    groups, left = [], [n for n, row in enumerate(rows) if (~np.isnan(row)).sum() * 4 >= len(row)]
    while left:
        first = left[0]
        group = [n for n in left if np.allclose(rows[n], rows[first], rtol=0, atol=1e-9, equal_nan=True)]
        left = [n for n in left if n not in group]
        if len(group) > 1:
            groups.append(group)
    return groups


@given(ROWS)
def test_groups_are_those_of_comparing_all_pairs(rows):
    table = np.array(rows).reshape(len(rows), 3)
    assert alike(table) == one_by_one(table)


def test_rows_that_differ_by_more_than_rounding_are_different():
    assert alike(np.array([[1.0, 2.0], [1.0, 2.000001]])) == []


def test_rows_that_exist_almost_nowhere_say_nothing():
    row = [1.0] + [NAN] * 7
    assert alike(np.array([row, row])) == []
