"""One line: its parts in the order of the air, laid out as a network and solved."""
