"""The school's calendar: reading days off from a file, what a change would mean, changing it."""
