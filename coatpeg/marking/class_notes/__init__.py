"""What staff say to all whom a hand-in is asked of: one note made of what was said to many."""
