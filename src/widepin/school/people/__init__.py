"""People: accounts, signing in, classes and who is in them, what is kept of somebody and what is erased."""
