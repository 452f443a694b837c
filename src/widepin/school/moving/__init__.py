"""Taking a class out with all that was done in it, as one file, and bringing it in again, here or elsewhere."""
