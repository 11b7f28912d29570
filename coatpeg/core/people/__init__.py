"""Rules of people and lists of them: names and their order, class lists read and planned, user names, peg pictures.

The lowest inner room of the core; tables as text (CSV) are read here, because class lists were the first to need it.
"""
