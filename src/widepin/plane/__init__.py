"""The plane: what can be constructed, written once over three number systems.

``shapes``    kinds of object and their coordinates
``makes``     every make of a step, from a free point to a circle through three points
``intersections`` where two curves meet, and which of two meeting points is meant
``gauges``    what the browser measures: lengths, angles, how far curves are apart that do not meet
``numbers``   what a number system must supply; ``arrays``, ``balls`` and ``tape`` supply it
``steps``     a step and what makes a list of steps well formed
``variants``  the makes as they are computed for each kind of curve and choice of intersection, one tape each
``compiling`` the tapes as Python functions
``figure``    a list of steps, linked and ready to be evaluated in any number system
``toolbook``  the tapes as one document for the browser

Nothing in here knows of tasks, verdicts, people or the web.
"""
