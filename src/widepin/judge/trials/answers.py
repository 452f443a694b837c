"""Which of the answers that a work may be taken to give is judged: the one pointed out, or the best one found."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...plane.tolerances import BLURRED
from ..costs.counts import NeededMoves
from ..task import Work
from ..verdict import Outcome
from .examination import Examination
from .search import search
from .trial import Trial, try_answer

MAX_EXACT = 12
"""Answers that are exact nearby which are tried, those of the fewest moves first."""

MAX_SCREENED = 96
"""Such answers at which floats look in the first batch, where there are more."""

MAX_BY_EYE = 6
"""Answers that only look right which are tried, the closest first."""


@dataclass(frozen=True)
class Found:
    """The best trial, None where nothing looks right, and whether a search for answers reached its bound."""

    trial: Trial | None
    stopped: bool = False


def pointed_out(examined: Examination, work: Work) -> Found:
    """The answer that the student pointed out, if it is right to the eye."""
    answer = {name: examined.figure.index[id_] for name, id_ in (work.answer or {}).items()}
    return Found(try_answer(examined, answer) if examined.looks_right(answer) else None)


def best_found(examined: Examination, work: Work) -> Found:
    """The best of all answers: of right ones that which needs the fewest moves, else the one that comes closest."""
    best, tried, stopped = best_exact(examined, work)
    if best is not None and best.outcome is Outcome.SOUND:
        return Found(best, stopped)
    looking = search(examined)
    others = [answer for answer in looking.answers if answer not in tried]
    blurred = [answer for answer in others if floats_are_blurred(examined, answer)]
    clear = [] if best is not None and best.outcome.is_right_as_drawn else closest(examined, others)[:MAX_BY_EYE]
    other = best_trial(examined, [*blurred[:MAX_EXACT], *(answer for answer in clear if answer not in blurred)])
    stopped |= looking.stopped or len(blurred) > MAX_EXACT
    trials = [one for one in (best, other) if one is not None]
    return Found(min(trials, key=lambda one: one.rank, default=None), stopped)


def best_exact(examined: Examination, work: Work) -> tuple[Trial | None, list[dict[str, int]], bool]:
    """The best of the answers that are exact nearby, those that were tried for it, and whether there were too many."""
    needed = NeededMoves(work, examined.figure)
    exact = search(examined, exact=True)
    if exact.stopped:
        # Too many because objects are there several times: then the cheapest of each stands for all.
        exact = search(examined, exact=True, cost=lambda number: needed.of([number]))
    answers = sorted(exact.answers, key=lambda answer: (needed.of(answer.values()), sorted(answer.values())))
    if len(answers) > MAX_EXACT:
        # Those that floats see failing nowhere come first.
        screened = answers[:MAX_SCREENED]
        answers = [*sorted(screened, key=lambda answer: fails_somewhere(examined, answer)), *answers[MAX_SCREENED:]]
    tried = answers[:MAX_EXACT]
    best = best_trial(examined, tried)
    is_sound = best is not None and best.outcome is Outcome.SOUND
    return best, tried, exact.stopped or (len(answers) > MAX_EXACT and not is_sound)


def best_trial(examined: Examination, answers: Sequence[dict[str, int]]) -> Trial | None:
    """The best outcome among answers, of equally good ones the first."""
    best: Trial | None = None
    for answer in answers:
        trial = try_answer(examined, answer)
        if best is None or trial.outcome.rank < best.outcome.rank:
            best = trial
        if best.outcome is Outcome.SOUND:
            break
    return best


def closest(examined: Examination, answers: Sequence[dict[str, int]]) -> list[dict[str, int]]:
    """Answers that only look right, those first that look so in the most positions, and of these the closest as
    drawn.
    """
    ranked = []
    for index, answer in enumerate(answers):
        look = examined.evaluate(examined.evaluation.shapes(examined.needs(answer)), answer)
        ranked.append((-int(look.visual.sum()), float(examined.look_as_drawn(answer).gap[0]), index))
    return [answers[place] for *_, place in sorted(ranked)]


def fails_somewhere(examined: Examination, answer: dict[str, int]) -> bool:
    """Whether floats see an answer wrong or undefined in some position of the first batch."""
    look = examined.evaluate(examined.evaluation.shapes(examined.needs(answer)), answer)
    return bool((look.wrong | look.undefined).any())


def floats_are_blurred(examined: Examination, answer: dict[str, int]) -> bool:
    """Whether floats miss what balls find of an answer as drawn, so that they may call wrong what is exact."""
    return any(examined.float_error(number) > BLURRED for number in answer.values())
