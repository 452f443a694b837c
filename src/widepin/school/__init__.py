"""The school: every rule on people, tasks and works, and every change of data.

Rooms, each of which imports only those before it:

``people``   accounts, signing in, classes and who is in them, what is kept and erased
``tasks``    sheets in versions, the library, class tools, giving a task to a class
``works``    boards and their logs, hand-ins with their verdicts, comments
``results``  where everybody stands, marks, practice, what is released
``lessons``  the class overview, who needs help, demonstrations, the first page
``demo``     the demo school

Below them stand the tables (``models``), their closed enumerations (``states``), the engine and its sessions
(``database``), what is refused (``refused``) and what the data take (``storage``). Nothing in here knows of requests or
pages.
"""
