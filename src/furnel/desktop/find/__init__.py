"""Find: the sieve, the wall and the spec card."""
