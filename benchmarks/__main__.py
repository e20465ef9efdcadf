"""`python -m benchmarks [blocks] [sound] [whole] [window [SECONDS]] [many] [scale]`; the last three run only when asked for."""

from __future__ import annotations

import sys
from importlib import import_module

PARTS = ("blocks", "sound", "whole")

for part in [name for name in sys.argv[1:] if not name.isdecimal()] or PARTS:
    import_module(f"benchmarks.{part}").main()
