"""The school: people, classes, tasks, assignments, works and hand-ins, and the rules on them.

``models``     the tables; ``states``, closed enumerations of theirs
``store``      the engine, sessions and what a request commits
``people``     accounts and passwords; ``signing_in``, tries and waits
``roster``     students, codes, classes
``library``    the tasks that come with the product
``sheets``     a teacher's own tasks, in versions; ``graded_series``, one task in steps of one move
``assigning``  what a class has to do, when and for whom
``class_tools`` constructions that a class may use as tools
``history``    a student's operations on a work, replayed into its board
``snapshots``  boards in memory
``intersections`` how the mark at an intersection is stored
``works``      autosave: operations stored once, in order, none lost
``handins``    handing in: the work as it stands, judged and kept; ``again``, judged once more
``scoring``    what a verdict is worth; ``marks``, all of a class
``reviewing``  comments, scores overridden, works returned
``overview``   every student's work on a task at this moment
``progress``   where students stand with an assignment
``demo``       the demo school

Nothing in here knows of requests or pages.
"""
