"""Notes that staff keep for themselves."""
