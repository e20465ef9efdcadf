"""Results stay on disk: what is read is what was examined, or a refusal, and memory does not grow with a mod."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel.errors import FurnelError
from furnel.mods import results
from furnel.mods.build import build
from furnel.mods.project import StepUse
from furnel.mods.results import Result, ResultBytes
from furnel.mods.workspace import Workspace


@pytest.fixture(autouse=True)
def _nothing_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(results, "_latest", results._Latest())


def test_what_is_read_is_what_was_there_or_refused(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    file = tmp_path / "result"
    file.write_bytes(b"one")
    result = Result.of(file, b"one")
    assert (result.size, result.read()) == (3, b"one")
    monkeypatch.setattr(results, "_latest", results._Latest())
    file.write_bytes(b"two")
    with pytest.raises(FurnelError, match="changed meanwhile"):
        result.read()
    file.unlink()
    with pytest.raises(FurnelError, match="no such file"):
        result.read()


def test_only_the_latest_stay_in_memory(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(results, "_MOST", 1000)
    made = []
    for number in range(50):
        file = tmp_path / str(number)
        file.write_bytes(bytes([number]) * 100)
        made.append(Result.of(file, file.read_bytes()))
    assert results._latest._bytes <= 1000
    assert [result.read() for result in made] == [bytes([number]) * 100 for number in range(50)]


def test_a_source_that_changes_under_a_build_is_not_written(space: Workspace, tmp_path: Path) -> None:
    source = tmp_path / "mine.png"
    Image.fromarray(np.full((96, 96, 4), 90, np.uint8)).save(source)
    swap = space.new_swap("hud/compass.dds", source)
    as_is = space.examine(swap)
    fitted = space.examine(space.fitted(swap))
    assert as_is.data == source.read_bytes() and as_is.size == len(as_is.data)
    assert fitted.data.startswith(b"DDS ") and fitted.kept is not None and fitted.kept.file != source
    assert dict(ResultBytes({"a": as_is, "b": fitted})) == {"a": as_is.data, "b": fitted.data}
    gone = space.examine(swap.model_copy(update={"source": "nowhere.png", "steps": (StepUse(do="opaque"),)}))
    assert (gone.data, gone.size, gone.state) == (b"", 0, "breaks")
    built = build(space.with_project(space.project.with_swap(fitted.swap)))
    assert (built.folder / "hud/compass.dds").read_bytes() == fitted.data
