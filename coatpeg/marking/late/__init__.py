"""What a school takes from a score for work that came late."""
