"""Sets of working groups: formed by hand, drawn at random, chosen by the students."""
