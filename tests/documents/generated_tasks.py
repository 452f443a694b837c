"""Tasks and works drawn at random: of all relations and kinds, with terms of the answer, the figure and a model."""

from __future__ import annotations

import random

from tests import zoo
from widepin.judge.conditions import KINDS_OF_TERM, RELATIONS, TermKind
from widepin.judge.task import MODEL, TOOLS, Allowance, Condition, IllFormedTask, Names, Task, Use, Wanted, Work
from widepin.plane.makes import MAKES

GIVEN = zoo.steps(
    "A free_point at=-3,0\nB free_point at=4,-1\nC free_point at=1,4\ns segment A B\ng line B C\nk circle A C"
)
KINDS = ("point", "line", "ray", "segment", "circle", "straight")


def task(seed: int) -> Task | None:
    """A task with one to three conditions; None where chance put together what is not well formed."""
    rng = random.Random(seed)
    model = zoo.random_continuation(rng, GIVEN, rng.randint(1, 7), "m")
    wanted = tuple(
        Wanted(name, rng.choice(KINDS), rng.random() < 0.15)
        for name in rng.sample(["W", "X", "t", "Mid"], rng.choice([1, 1, 1, 2, 3]))
    )
    names = {step.id: {MAKES[step.make].gives} for step in GIVEN}
    names |= {MODEL + step.id: {MAKES[step.make].gives} for step in model}
    names |= {one.name: set(one.kinds) for one in wanted}
    conditions = [condition(rng, names) for _ in range(rng.randint(1, 4))]
    if any(one is None for one in conditions) or not any(w.name in c.names for w in wanted for c in conditions):
        return None
    try:
        return Task("", GIVEN, tuple(map(Allowance, TOOLS)), wanted, tuple(conditions), (), model)
    except IllFormedTask:
        return None


def condition(rng: random.Random, names: dict[str, set]) -> Condition | None:
    """A relation with terms that fit it, as far as there are any."""
    relation = RELATIONS[rng.choice(list(RELATIONS))]
    count = rng.randint(relation.many, relation.many + 2) + relation.fixed if relation.many else len(relation.of)
    points = [name for name, kinds in names.items() if kinds <= KINDS_OF_TERM[TermKind.POINT]]
    terms: list[Names] = []
    for role in relation.roles(count):
        if role.is_list or (role.size == 2 and rng.random() < 0.3 and len(points) > 1):
            if len(points) < role.size:
                return None
            terms.append(tuple(rng.sample(points, role.size)))
            continue
        fitting = [name for name, kinds in names.items() if kinds & KINDS_OF_TERM[role]]
        if not fitting:
            return None
        terms.append(rng.choice(fitting))
    ratio = (rng.randint(1, 3), rng.randint(1, 3)) if relation.name == "ratio" else None
    return Condition(relation.name, tuple(terms), ratio)


def work(task: Task, seed: int) -> Work:
    """A work on it: the model, or steps by chance, some within a class tool, with an answer pointed out or not."""
    rng = random.Random(seed * 7 + 1)
    steps = [step.renamed({one.id: "u" + one.id for one in task.model}) for step in task.model]
    if rng.random() < 0.7:
        steps = list(zoo.random_continuation(rng, GIVEN, rng.randint(1, 10), "u"))
    uses: tuple[Use, ...] = ()
    if rng.random() < 0.4 and len(steps) > 2:
        count = rng.randint(2, len(steps))
        ids = tuple(step.id for step in steps[:count])
        uses = (Use("Tool", ids, (ids[-1],), 1),)
    answer = {}
    for one in task.wanted:
        fitting = [step.id for step in steps if MAKES[step.make].gives in one.kinds]
        if fitting:
            answer[one.name] = rng.choice(fitting)
    pointed_out = len(answer) == len(task.wanted) and rng.random() < 0.5
    return Work(tuple(steps), answer if pointed_out else None, uses)
