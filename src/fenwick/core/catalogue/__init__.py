"""Generic things a shop may own, with what to take for them until somebody measures. All of it is estimates."""
