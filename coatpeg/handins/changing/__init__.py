"""Changing a hand-in that is set: what a change means for whom, doing it, taking away and bringing back."""
