"""How sure the figures are, and where they should not be trusted."""
