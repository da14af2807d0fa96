"""How a figure comes about, step by step, so that whoever has the steps can work it out again."""
