"""What takes minutes: kills, races, floods of odd requests, trees at the bounds of the rig file, ten years of data."""
