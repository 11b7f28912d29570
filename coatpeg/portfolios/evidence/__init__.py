"""Evidence in pockets: added, written about, arranged, taken out and brought back; starters; what was said."""
