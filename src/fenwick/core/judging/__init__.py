"""What the figures of a line are held against: checks, with the only ratios and levels."""
