"""Widgets that more than one station uses."""
