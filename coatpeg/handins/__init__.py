"""Hand-ins, submissions, their outcomes and locks; the board.

Public: ``commands`` (set, hand in, take back, excuse), ``outcomes`` (used by marking), ``board``,
``worklists``, ``records`` (facts from events). Imports portfolios and below.
"""
