"""The rules tried at their ends, from outside: a rig file goes in, and what comes out must be believed at a bench."""
