"""``python -m tests.recorded [NAME ...]``: write the records anew."""

import sys
import tempfile
from pathlib import Path

from tests.recorded.outcomes import RECORDS, write
from tests.recorded.school import demo_school, of_school

for name in sys.argv[1:] or [*RECORDS, "school"]:
    if name in RECORDS:
        write(name, RECORDS[name]())
    else:
        with tempfile.TemporaryDirectory() as folder, demo_school(Path(folder)) as session:
            write(name, of_school(session))
    print(name)
