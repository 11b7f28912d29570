"""Reminding those who owe: whom, in which words, when last; and what a student reads of it."""
