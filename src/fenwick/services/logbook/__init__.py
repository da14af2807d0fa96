"""The shop's log worked out: what it says of today, of what is due, of a trend, of money."""
