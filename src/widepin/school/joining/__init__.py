"""Learning platforms as the school knows them: who comes from where, which class a course is, what is sent there."""
