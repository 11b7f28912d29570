"""Looking in: when staff looked, and what they say without any hand-in."""
