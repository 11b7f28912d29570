"""Bytes: kept by their hash, cleaned, shown, sent up in parts, sent out.

Public: ``keeping`` (judge, clean and keep what came in), ``previews``, ``serving``, ``uploads`` (what an upload becomes
is registered under its purpose by the room it is for). Knows of no portfolio. Imports people and below.
"""
