"""Build: what the mod contains, what it says of itself, and its way into the game."""
