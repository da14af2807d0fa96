"""From the checked rig file to the components of the core."""
