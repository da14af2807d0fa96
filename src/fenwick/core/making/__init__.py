"""Making a design: its parts with their outlines, the order of work, what is cut with what."""
