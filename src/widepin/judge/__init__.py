"""The judge: is a student's construction right, does it hold when dragged, and what did it cost.

``judging``     all of it put together: ``judge(task, work)``
``task``        what is asked: given figure, tools, wanted objects, ``conditions``; ``rules`` that it can break
``verdict``     the outcomes and what is said with them
``task_check``  trying a task before students do; ``mirrored``, answers on the other side

``positions``   the batch a verdict is based on (``drags``), what chance misses (``limits``), ``branches``,
                ``ordering``, ``references`` of intersections, ``alike``: rows of numbers that agree
``costs``       ``counts`` of moves and tools, ``elementary`` moves and strokes, the ``structure`` of a construction,
                constructions as class tools
``trials``      a board (``examination``): floats look at many positions, balls rule on one; the answer found
                (``search``) and tried (``trial``), the simplest failure (``breaks``), whether the ``method`` holds
``reports``     what a verdict can say beyond its outcome: ``mends``, ``truths``, ``provisos``, what was ``overlooked``

Nothing in here knows of JSON, people or the web.
"""
