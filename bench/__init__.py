"""Speed, measured; not a test."""
