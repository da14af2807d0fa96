"""The way that a line is on: its steps in the order they are gone, what is done of it and when."""
