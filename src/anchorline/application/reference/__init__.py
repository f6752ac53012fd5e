"""Reference data: loads, editions, and what is done with them."""
