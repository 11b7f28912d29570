"""What is a student's own: the cover, loose pages, the show page."""
