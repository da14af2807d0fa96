"""The dust: caught at the ports, separated, filtered, and where it ends."""
