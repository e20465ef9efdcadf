"""The archive bench: working out an archive that nobody described yet."""
