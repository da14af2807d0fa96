"""Finding a fault: each one simulated through the same model, ranked by how well it explains what was read."""
