"""Rubrics to begin from: out of a table, out of the gallery, as of another hand-in."""
