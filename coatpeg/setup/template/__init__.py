"""The template of a running class: what a change would mean, changing it, its units, the gallery."""
