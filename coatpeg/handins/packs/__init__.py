"""Everything that was handed in for a hand-in, as one file to take along; made in the background."""
