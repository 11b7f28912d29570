"""Rules of what is asked for: pockets as they are laid out, units, versions, the gallery; what is filled, and what an
adjustment changes about that.
"""
