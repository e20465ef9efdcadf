"""The demo: what it is made of and the story it tells."""
