"""Changes of a rig, each a new rig that has been checked as a whole."""
