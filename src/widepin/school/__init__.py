"""The school: people, classes, tasks, assignments, works and hand-ins, and the rules on them.

``models``   the tables
``store``    the engine, sessions and what a request commits
``people``   accounts and passwords
``operations`` a student's operations on a work, replayed into its steps
``intersections`` how the mark at an intersection is stored
``works``    autosave: operations stored once, in order, none lost
``handins``  handing in: the work as it stands, judged and kept
``progress`` where students stand with an assignment
``demo``     the demo school

Nothing in here knows of requests or pages.
"""
