"""The rig file: its models, what is wrong with one, reading, writing and describing."""
