"""Everything that the game shows, drawn with NumPy and Pillow from a seed."""
