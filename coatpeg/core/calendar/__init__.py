"""School days, weeks and terms; a calendar as it is laid out and changed."""
