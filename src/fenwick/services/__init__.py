"""What pages and commands do to a shop: each over the core and the data, none of it knowing a page."""
