"""`python -m benchmarks [PART …]`.

Parts: blocks, sound, whole, window [SECONDS], many, scale, definitions, sheets, sizing, archives, door.

Without a name the first three run.
"""

from __future__ import annotations

import sys
from importlib import import_module

PARTS = ("blocks", "sound", "whole")

for part in [name for name in sys.argv[1:] if not name.isdecimal()] or PARTS:
    import_module(f"benchmarks.{part}").main()
