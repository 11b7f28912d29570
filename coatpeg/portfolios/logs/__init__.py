"""Logs: rows written, read, added up."""
