"""A proof made short and exact once its lines stand: nothing said that no line after it needs.

Lines of equal lengths say all that they could at first; here each keeps the lengths that are used. A condition that a
line says in other words is that line.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from .drawn import Drawn
from .facts import Fact, Rel, ends, fact, lengths_of, three
from .proof import Line
from .rules import RULES, RuleName, bound

Lengths = set[tuple[str, str]]


def shortened(lines: Sequence[Line], ways: Mapping[int, Sequence[Fact]], drawn: Drawn) -> tuple[Line, ...]:
    """The lines that lead to a condition, each saying what is needed of it, numbered anew.

    ``ways``: number of the line of a condition -> the facts from which it follows.
    """
    found = [_as_said(line, drawn) for line in lines]
    _merge_conditions(found)
    _keep_needed_lengths(found, ways, drawn)
    _merge_conditions(found)
    return without_unused(found)


def _as_said(line: Line, drawn: Drawn) -> Line:
    """Angles by the points that the rule is about; of points in a row of which two lie on a drawn line, that the third
    does. Rays and segments may end before it.
    """
    if line.condition is not None:
        return line
    if line.fact.rel in (Rel.EQUAL_ANGLE, Rel.ANGLE, Rel.RIGHT_ANGLE) and RULES[line.rule].conclusion:
        said = replace(bound(RULES[line.rule].conclusion_pattern, line.bindings), ratio=line.fact.ratio)
        return replace(line, fact=said) if said.rel is line.fact.rel else line
    if line.fact.rel is not Rel.COLLINEAR:
        return line
    names = [str(name) for name in line.fact.of]
    for curve in drawn.lines:
        off = [name for name in names if name not in drawn.on[curve]]
        if len(off) == 1 and len(names) == 3 and " " not in curve and curve not in drawn.bounded:
            return replace(line, fact=fact(Rel.ON, off[0], curve))
    return line


def _merge_conditions(lines: list[Line]) -> None:
    """A condition that only repeats the one line that it rests on takes the place of that line."""
    for place, line in enumerate(lines):
        if line.condition is None or len(line.because) != 1:
            continue
        at = line.because[0] - 1
        said = lines[at]
        if said.condition is None and said.rule is not RuleName.BY_CONSTRUCTION and _repeats(line, said, lines):
            lines[at] = replace(said, fact=line.fact, condition=line.condition)
            lines[place] = replace(line, condition=None)


def _repeats(line: Line, said: Line, lines: Sequence[Line]) -> bool:
    if line.rule in (RuleName.TRANSITIVE, RuleName.SAME_LINE) and line.fact.rel is Rel.EQUAL_LENGTH:
        users = [other for other in lines if line.because[0] in other.because and other is not line]
        wanted, there = lengths_of(line.fact), lengths_of(said.fact)
        return wanted == there if users else wanted <= there
    if line.rule is RuleName.DIRECTIONS and line.fact.rel is Rel.PERPENDICULAR and said.fact.rel is Rel.RIGHT_ANGLE:
        p, v, q = three(said.fact.of[0])
        return fact(Rel.PERPENDICULAR, *line.fact.of) == fact(Rel.PERPENDICULAR, (p, v), (v, q))
    if line.fact.rel is Rel.ON and said.fact.rel is Rel.COLLINEAR:
        return line.fact.names == said.fact.names
    return line.fact == said.fact


def _keep_needed_lengths(lines: list[Line], ways: Mapping[int, Sequence[Fact]], drawn: Drawn) -> None:
    """Of lines of equal lengths what lines after them use; one that then says no more than one it cites gives way."""
    needed: list[Lengths] = [set() for _line in lines]
    for place in range(len(lines) - 1, -1, -1):
        line = lines[place]
        if not _is_gathered(line):
            _ask(line, lines, needed, ways.get(place + 1, ()))
            continue
        if line.condition is None:
            if len(needed[place]) < 2:
                continue  # nobody asks for it
            line = lines[place] = replace(line, fact=fact(Rel.EQUAL_LENGTH, *sorted(needed[place])))
        if line.rule is RuleName.RADII:
            lines[place] = replace(line, steps=_steps(line.fact, drawn))
            continue
        said = lengths_of(line.fact)
        whole = next((n for n in line.because if said <= lengths_of(lines[n - 1].fact)), None)
        if whole is not None and line.condition is None:
            _redirect(lines, place + 1, whole)
            needed[whole - 1] |= said
        else:
            _ask_joined(line, lines, needed, said)


def _is_gathered(line: Line) -> bool:
    return line.fact.rel is Rel.EQUAL_LENGTH and line.rule in (RuleName.TRANSITIVE, RuleName.RADII)


def _ask(line: Line, lines: Sequence[Line], needed: list[Lengths], way: Sequence[Fact]) -> None:
    """What a line needs of those that it cites: the equal lengths that are its premises, or a condition's ``way``."""
    premises = [bound(pattern, line.bindings) for pattern in RULES[line.rule].premise_patterns] or way
    for premise in premises:
        if premise.rel is Rel.EQUAL_LENGTH:
            asked = lengths_of(premise)
            for number in line.because:
                if len(asked) > 1 and asked <= lengths_of(lines[number - 1].fact):
                    needed[number - 1] |= asked
                    break


def _ask_joined(line: Line, lines: Sequence[Line], needed: list[Lengths], said: Lengths) -> None:
    """Of the lines that it puts together what it says, and a length that joins each to those before."""
    waiting = [number for number in line.because if lengths_of(lines[number - 1].fact)]
    if not waiting:
        return
    joined = [waiting.pop(0)]
    while waiting:
        near = (
            (n, m, both)
            for n in waiting
            for m in joined
            if (both := lengths_of(lines[n - 1].fact) & lengths_of(lines[m - 1].fact))
        )
        number, other, shared = next(near, (0, 0, set()))
        if not shared:
            return  # the checker will not pass it
        common = min(shared & said or shared)
        needed[number - 1].add(common)
        needed[other - 1].add(common)
        waiting.remove(number)
        joined.append(number)
    for number in joined:
        needed[number - 1] |= said & lengths_of(lines[number - 1].fact)


def _redirect(lines: list[Line], old: int, new: int) -> None:
    for place, line in enumerate(lines):
        if old in line.because:
            because = {new if number == old else number for number in line.because}
            lines[place] = replace(line, because=tuple(sorted(because)))


def _steps(one: Fact, drawn: Drawn) -> tuple[str, ...]:
    """The steps by which lengths are radii together."""
    pairs = list(map(ends, one.of))
    radii = next(group for group in drawn.radii if all(pair in group for pair in pairs))
    return tuple(sorted(frozenset().union(*(radii[pair] for pair in pairs))))


def without_unused(lines: Sequence[Line]) -> tuple[Line, ...]:
    """The lines that lead to a condition, numbered anew."""
    used: set[int] = set()
    waiting = [number for number, line in enumerate(lines, 1) if line.condition is not None]
    while waiting:
        number = waiting.pop()
        if number not in used:
            used.add(number)
            waiting += lines[number - 1].because
    place = {number: index for index, number in enumerate(sorted(used), 1)}
    return tuple(
        replace(line, because=tuple(place[cited] for cited in line.because))
        for number, line in enumerate(lines, 1)
        if number in used
    )
