"""Small pretend systems that speak the standards for real, with keys, signatures, tokens and a clock of their own."""
