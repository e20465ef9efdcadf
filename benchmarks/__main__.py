"""`python -m benchmarks [blocks] [sound] [whole] [scale]`; `scale` makes 100 000 assets first and runs only when asked for."""

from __future__ import annotations

import sys
from importlib import import_module

PARTS = ("blocks", "sound", "whole")

for part in sys.argv[1:] or PARTS:
    import_module(f"benchmarks.{part}").main()
