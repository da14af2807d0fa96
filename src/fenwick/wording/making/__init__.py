"""Making a design, in trade words."""
