"""Texts: saved over the version that was seen, put together, with their history."""
