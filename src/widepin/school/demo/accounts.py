"""The accounts that the demo offers to sign in as. Apart from ``demo``, so that naming them loads nothing else."""

DEMO_PASSWORD = "tracery"

SHOWN_ACCOUNTS = (
    ("corin.hale", "Master Corin Hale, teacher"),
    ("ilse.marran", "Ilse Marran, student, second year"),
    ("bram.idris", "Bram Idris, student, first year"),
    ("oda.finch", "Oda Finch, teacher, looks after the school"),
)
