"""`python -m fenwick`."""

from fenwick.cli import main

main(prog_name="fenwick")
