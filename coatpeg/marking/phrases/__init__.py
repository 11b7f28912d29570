"""Phrases that markers say often, own and shared."""
