"""BC6H's constant tables (Khronos Data Format Specification 1.3, chapter 20.2): where every mode keeps its end points."""

from __future__ import annotations

import re

import numpy as np

# Mode bits, precision of the base, of the differences in red, green and blue, then the fields from the lowest bit on.
# w is the base, x y z the other end points (of the first region, and both of the second), d the partition.
# `rx4-0` is five bits, the lowest first; `rw15-10` turned over, `rw10-15`, begins with the highest.
_LAYOUTS = (
    ("00", 10, (5, 5, 5), "gy4 by4 bz4 rw9-0 gw9-0 bw9-0 rx4-0 gz4 gy3-0 gx4-0 bz0 gz3-0 bx4-0 bz1 by3-0 ry4-0 bz2 rz4-0 bz3 d4-0"),
    ("01", 7, (6, 6, 6), "gy5 gz4 gz5 rw6-0 bz0 bz1 by4 gw6-0 by5 bz2 gy4 bw6-0 bz3 bz5 bz4 rx5-0 gy3-0 gx5-0 gz3-0 bx5-0 by3-0 ry5-0 rz5-0 d4-0"),
    ("00010", 11, (5, 4, 4), "rw9-0 gw9-0 bw9-0 rx4-0 rw10 gy3-0 gx3-0 gw10 bz0 gz3-0 bx3-0 bw10 bz1 by3-0 ry4-0 bz2 rz4-0 bz3 d4-0"),
    ("00110", 11, (4, 5, 4), "rw9-0 gw9-0 bw9-0 rx3-0 rw10 gz4 gy3-0 gx4-0 gw10 gz3-0 bx3-0 bw10 bz1 by3-0 ry3-0 bz0 bz2 rz3-0 gy4 bz3 d4-0"),
    ("01010", 11, (4, 4, 5), "rw9-0 gw9-0 bw9-0 rx3-0 rw10 by4 gy3-0 gx3-0 gw10 bz0 gz3-0 bx4-0 bw10 by3-0 ry3-0 bz1 bz2 rz3-0 bz4 bz3 d4-0"),
    ("01110", 9, (5, 5, 5), "rw8-0 by4 gw8-0 gy4 bw8-0 bz4 rx4-0 gz4 gy3-0 gx4-0 bz0 gz3-0 bx4-0 bz1 by3-0 ry4-0 bz2 rz4-0 bz3 d4-0"),
    ("10010", 8, (6, 5, 5), "rw7-0 gz4 by4 gw7-0 bz2 gy4 bw7-0 bz3 bz4 rx5-0 gy3-0 gx4-0 bz0 gz3-0 bx4-0 bz1 by3-0 ry5-0 rz5-0 d4-0"),
    ("10110", 8, (5, 6, 5), "rw7-0 bz0 by4 gw7-0 gy5 gy4 bw7-0 gz5 bz4 rx4-0 gz4 gy3-0 gx5-0 gz3-0 bx4-0 bz1 by3-0 ry4-0 bz2 rz4-0 bz3 d4-0"),
    ("11010", 8, (5, 5, 6), "rw7-0 bz1 by4 gw7-0 by5 gy4 bw7-0 bz5 bz4 rx4-0 gz4 gy3-0 gx4-0 bz0 gz3-0 bx5-0 by3-0 ry4-0 bz2 rz4-0 bz3 d4-0"),
    ("11110", 6, (6, 6, 6), "rw5-0 gz4 bz0 bz1 by4 gw5-0 gy5 by5 bz2 gy4 bw5-0 gz5 bz3 bz5 bz4 rx5-0 gy3-0 gx5-0 gz3-0 bx5-0 by3-0 ry5-0 rz5-0 d4-0"),
    ("00011", 10, (10, 10, 10), "rw9-0 gw9-0 bw9-0 rx9-0 gx9-0 bx9-0"),
    ("00111", 11, (9, 9, 9), "rw9-0 gw9-0 bw9-0 rx8-0 rw10 gx8-0 gw10 bx8-0 bw10"),
    ("01011", 12, (8, 8, 8), "rw9-0 gw9-0 bw9-0 rx7-0 rw10-11 gx7-0 gw10-11 bx7-0 bw10-11"),
    ("01111", 16, (4, 4, 4), "rw9-0 gw9-0 bw9-0 rx3-0 rw10-15 gx3-0 gw10-15 bx3-0 bw10-15"),
)  # fmt: skip

COUNT = len(_LAYOUTS)
PARTITION = 12  # the field after twelve colour fields

# (mode, 8): its bits, its value, regions, base precision, precision in red, green and blue, whether these are differences
SHAPES = np.zeros((COUNT, 8), np.int64)
# (mode, place, 2): the field and the bit of it that lie at a place after the mode's bits; -1 where none does
PLACES = np.full((COUNT, 80, 2), -1, np.int64)
# (32): the mode that the lowest five bits tell, -1 for the reserved ones
MODE_OF_BITS = np.full(32, -1, np.int64)

for _mode, (_bits, _base, _differences, _fields) in enumerate(_LAYOUTS):
    _value, _regions = int(_bits, 2), 2 if "d4" in _fields else 1
    SHAPES[_mode] = (
        len(_bits),
        _value,
        _regions,
        _base,
        *_differences,
        0 if _differences == (_base,) * 3 else 1,
    )
    _place = 0
    for _field in _fields.split():
        _name, _first, _last = re.fullmatch(r"([rgb][wxyz]|d)(\d+)(?:-(\d+))?", _field).groups()  # type: ignore[union-attr]
        _number = PARTITION if _name == "d" else "wxyz".index(_name[1]) * 3 + "rgb".index(_name[0])
        _high, _low = int(_first), int(_last or _first)
        for _bit in range(_low, _high + (1 if _high >= _low else -1), 1 if _high >= _low else -1):
            PLACES[_mode, _place] = _number, _bit
            _place += 1
    for _five in range(32):
        if _five & ((1 << len(_bits)) - 1) == _value:
            MODE_OF_BITS[_five] = _mode
