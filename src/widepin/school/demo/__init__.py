"""The demo school: stone carvers who set out window tracery. All people and places in it are invented."""
