"""Figures, each measured beside a real peer in the same run. `./run bench` prints them all, `./run bench blocks` one part."""
