"""A student's work: portfolios, artefacts, evidence, texts and their history, files, holds.

Public: ``commands`` (what a student does), ``contents`` (what lies in the pockets), ``files`` (keeping
bytes), ``holds``. Imports outlines and below; knows of hand-ins only their ids and titles.
"""
