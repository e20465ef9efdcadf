"""Fit: the queue of swaps, a bench for each kind of asset, the fit table and the steps."""
