"""What is said on a submission and on places in it: comments, highlights, wording, ink, voice, and answers."""
