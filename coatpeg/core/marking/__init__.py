"""Rules of marks."""
