"""One published equation or one rule of thumb per function; plain arrays in and out, SI."""
