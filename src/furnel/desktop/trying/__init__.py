"""Try: the stack, stills before and after, the game's own word, and the game itself."""
