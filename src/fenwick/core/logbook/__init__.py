"""What a shop's log says: how full and how caked things are, what is due when, whether it gets worse, what it cost."""
