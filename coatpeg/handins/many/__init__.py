"""Acting on many students and hand-ins at once, from the board."""
