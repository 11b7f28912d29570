"""Handing in and what comes of it: submissions, outcomes, locks, the facts kept."""
