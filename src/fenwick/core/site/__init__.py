"""The floor plan: ways of hoses and cords."""
