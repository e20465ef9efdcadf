"""The demo: the stand-in game, a modder's files, and a half-done mod to begin with."""
