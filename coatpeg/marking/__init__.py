"""Reviewing: the marking pile, the desk, drafts, feedback and scores.

Public: ``commands``, ``queries``. Imports hand-ins and below.
"""
