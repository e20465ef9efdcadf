"""The game's own assets as sources: nothing is lost on the way, nothing that is there is written over."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest

from furnel.errors import FurnelError
from furnel.images.formats import FORMATS
from furnel.images.picture import Picture
from furnel.media import medium_of
from furnel.mods.fromgame import own_source
from furnel.mods.workspace import create_project, open_workspace
from furnel.sound import read_clip


def test_one_of_every_format_comes_as_it_was(game: Path, tmp_path: Path) -> None:
    space = open_workspace(create_project(tmp_path / "mod", "Own", game))
    seen: dict[tuple[str, str], str] = {}
    for asset in space.catalogue.assets:
        if asset.facts.kind in ("texture", "sheet", "sound", "music"):
            seen.setdefault((asset.facts.kind, asset.facts.format), asset.path)
    assert len(seen) > 9
    for (kind, fmt), path in seen.items():
        shipped = space.catalogue.bytes_of(path)
        file = own_source(space, path)
        assert own_source(space, path) == file, "once is enough"
        data = file.read_bytes()
        if kind in ("sound", "music"):
            theirs, ours = read_clip(shipped, path)[0], read_clip(data, file)[0]
            assert file.suffix == ".wav" and ours.rate == theirs.rate
            assert np.abs(ours.samples - theirs.samples).max() <= 1 / 32000
            continue
        before, after = (medium_of(one, at).opened(one, at) for one, at in ((shipped, path), (data, file)))
        assert isinstance(before, Picture) and isinstance(after, Picture)
        assert (before.pixels == after.pixels).all()
        lossless = FORMATS[fmt].sample == "whole" if fmt in FORMATS else True
        assert (data == shipped) or (file.suffix == ".png" and lossless)
    space.close()


def test_what_is_there_is_left_alone_and_definitions_are_refused(game: Path, tmp_path: Path) -> None:
    space = open_workspace(create_project(tmp_path / "mod", "Own", game))
    first = own_source(space, "art/rock/slate.dds")
    first.write_bytes(b"painted over")
    second = own_source(space, "art/rock/slate.dds")
    assert second.name == "slate 2.png" and first.read_bytes() == b"painted over"
    with pytest.raises(FurnelError, match="neither a picture nor a sound"):
        own_source(space, "rules/boats.toml")
    space.close()
