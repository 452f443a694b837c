"""What the program says of some works and tasks, as it was when it was last looked over: any change of it is seen.

Where a change is wanted, ``python -m tests.recorded`` writes the records anew; their difference is read like code.
"""
