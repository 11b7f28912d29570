"""Coat Peg: portfolios, hand-ins and who has handed in what.

Rooms, each importing only those before it:
core, events, people, outlines, portfolios, handins, marking, web.
"""
