"""The judge: is a student's construction right, does it hold when dragged, and what did it cost.

``task``        what is asked: given figure, tools, wanted objects, conditions
``conditions``  the relations, as gaps that must vanish and margins that must be positive
``drags``       the positions of a figure that a verdict is based on; ``limits`` adds what chance misses
``examination`` a task with a student's steps on it: floats look at many positions, balls rule on one
``search``      which of the student's objects are meant as the answer
``trial``       one answer tried: floats propose, balls decide
``breaks``      the simplest position in which an answer fails
``counts``      moves, needed and idle ones; tools allowed
``compound_tools`` a construction as a tool that makes several steps at once
``method``      whether other intersections would have made the answer right
``mends``       small changes that make a work sound, verified
``truths``      what stays true among the student's objects; ``repeats``, what was there already
``costs``       elementary moves and geometrography
``measured``    the values that a condition is about
``report``      what a verdict can say beyond its outcome
``task_check``  trying a task before students do; ``mirrored``, answers on the other side
``references``  whether the point that an intersection refers to lies on both curves
``alike``       rows of numbers that agree
``verdict``     the outcomes and what is said with them
``judging``     all of it put together: ``judge(task, work)``

Nothing in here knows of JSON, people or the web.
"""
