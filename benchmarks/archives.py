"""Archives: what reading back costs beside the writing alone, and how fast noise is looked through for known files."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np

from furnel.containers import Changes, find_files, open_container, parse_layout, write_archive
from furnel.containers.proof import Proof

ENTRIES, EACH, NOISE = 200, 2 << 20, 256 << 20
LAYOUT = """furnel-layout = 1
name = "plain"
title = "an index in front"
files = ["*.plain"]
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 48, holds = "path" }, { name = "begin", type = "u64", holds = "offset" },
  { name = "size", type = "u64", holds = "size" },
]
"""


def main() -> None:
    rng = np.random.default_rng(1)
    data = rng.integers(0, 256, EACH, np.uint8).tobytes()
    layout = parse_layout(LAYOUT, "plain")
    with tempfile.TemporaryDirectory(dir=Path.cwd()) as scratch:
        folder = Path(scratch)
        write_archive(folder / "a.plain", {f"e/{number:04}.bin": data for number in range(ENTRIES)}, layout)
        container = open_container(folder / "a.plain", layout)

        def rewrite() -> None:
            container.rewrite(folder / "b.plain", Changes({"e/0001.bin": data + b"x"}))

        rewrite()
        proved = min(_seconds(rewrite) for _ in range(3))
        proof = Proof.__call__
        Proof.__call__ = lambda self, written: None  # type: ignore[method-assign]
        plain = min(_seconds(rewrite) for _ in range(3))
        Proof.__call__ = proof  # type: ignore[method-assign]
        container.close()
    print(
        f"Rewriting {ENTRIES * EACH >> 20} MiB and reading it back: {proved:.2f} s, {proved / plain:.2f} × the writing alone"
    )
    noise = memoryview(rng.integers(0, 256, NOISE, np.uint8).tobytes())
    took = _seconds(lambda: find_files(noise))
    print(f"Looking through noise for known files: {(NOISE >> 20) / took:.0f} MiB/s")


def _seconds(work: Callable[[], object]) -> float:
    begin = time.perf_counter()
    work()
    return time.perf_counter() - begin
