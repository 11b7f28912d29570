"""Templates: sections, pockets and what is wanted in them.

Public: ``models``, ``reading`` (a group's outline as the rules take it). Imports people and below.
"""
