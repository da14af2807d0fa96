"""Other lines than this one: single changes, parts of a drawer, designs, schools; ranked by a few figures."""
