"""Filters of the pegs, kept under a name of one's own and shared with co-staff."""
