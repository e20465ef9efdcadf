"""What is kept to be fast: counted, and let go of, the longest unused first; what is open stays."""

from __future__ import annotations

import os
import shutil
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.errors import Cancelled
from furnel.kept import kept_bytes, let_go


@pytest.fixture
def cache(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("FURNEL_CACHE", str(tmp_path))
    return tmp_path


def _keep(cache: Path, name: str, size: int, used: int) -> Path:
    file = cache / name
    file.parent.mkdir(parents=True, exist_ok=True)
    file.write_bytes(bytes(size))
    os.utime(file, (used, used))
    return file


def test_the_longest_unused_goes_first_with_what_belongs_to_it(cache: Path) -> None:
    old, seen = _keep(cache, "results/aa", 700, 100), _keep(cache, "results/aa.fit", 50, 100)
    base, log = (
        _keep(cache, "catalogues/g.sqlite", 300, 200),
        _keep(cache, "catalogues/g.sqlite-wal", 20, 200),
    )
    young, kernels = _keep(cache, "shapes/s.npy", 90, 300), _keep(cache, "kernels/k.nbc", 5000, 1)
    assert kept_bytes() == {"results": 750, "shapes": 90, "catalogues": 320}
    assert let_go(most=500) == 750
    assert not old.exists() and not seen.exists() and base.exists()
    assert let_go([base]) == 90
    assert log.exists() and not young.exists() and kernels.exists()
    assert let_go() == 320 and let_go() == 0


def test_it_stops_when_asked_to(cache: Path) -> None:
    class Stop:
        def report(self, fraction: float, text: str) -> None:
            pass

        def cancelled(self) -> bool:
            return True

    file = _keep(cache, "results/aa", 7, 1)
    with pytest.raises(Cancelled):
        let_go(progress=Stop())
    assert file.exists()


@given(
    st.lists(st.tuples(st.integers(1, 90), st.integers(1, 10**6)), max_size=12),
    st.integers(0, 600),
    st.data(),
)
def test_as_little_goes_as_has_to(
    cache: Path, files: list[tuple[int, int]], most: int, data: st.DataObject
) -> None:
    shutil.rmtree(cache / "results", ignore_errors=True)  # of an example that was given up
    made = [_keep(cache, f"results/{place}", *file) for place, file in enumerate(files)]
    spare = data.draw(st.sets(st.sampled_from(made))) if made else set()
    before = sum(size for size, _ in files)
    freed = let_go(spare, most)
    left = [file for file in made if file.exists()]
    assert spare <= set(left) and before - freed == sum(file.stat().st_size for file in left)
    gone = [file for file in made if not file.exists()]
    assert before - freed <= most or set(left) == spare
    if gone:  # without the last that went it would have been too much
        last = max(gone, key=lambda file: files[made.index(file)][1])
        assert before - freed + files[made.index(last)][0] > most
