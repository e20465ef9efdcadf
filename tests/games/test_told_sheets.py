"""Sheets that a made-up game's texts tell: seen as sheets with their cells, and only where the numbers bear it out."""

from __future__ import annotations

from pathlib import Path

import pytest
from PIL import Image

from furnel.catalogue import Catalogue
from furnel.games import Install, keep_profile, profile_text, survey

TEXTS = {
    "art/otter.reed": '(figure (image "otter.png") (size 32 24) (array 4 2))',
    "art/kettle.reed": '(figure (image "art/deep/kettle.png") (size 16 16))',
    "art/heron.reed": '(figure (image "heron") (size 20 20) (speed 3))',
    "art/odd.reed": '(figure (image "odd.png") (size 33 24))',  # does not fill it
    "art/whole.reed": '(figure (image "whole.png") (size 64 48))',  # one cell is no sheet
    "art/two.reed": '(figure (image "two.png") (size 32 24))',
    "art/other.reed": '(figure (image "two.png") (size 16 24))',  # and another says otherwise
    "art/gone.reed": '(figure (image "gone.png") (size 16 24))',
}
SIZES = {
    "art/otter.png": (128, 48),
    "art/deep/kettle.png": (64, 16),
    "birds/heron.png": (60, 20),
    "art/odd.png": (64, 48),
    "art/whole.png": (64, 48),
    "art/two.png": (64, 48),
    "art/plain.png": (64, 64),
}


def test_texts_tell_which_pictures_are_sheets(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    game = tmp_path / "moss"
    for path, text in TEXTS.items():
        (game / path).parent.mkdir(parents=True, exist_ok=True)
        (game / path).write_text(text)
    for path, size in SIZES.items():
        (game / path).parent.mkdir(parents=True, exist_ok=True)
        Image.new("RGB", size, "teal").save(game / path)
    (game / "art/broken.png").write_bytes(b"\x89PNG\r\n\x1a\nbroken")
    found = survey(game)
    assert {sheet.picture: sheet.cell for sheet in found.sheets} == {
        "art/otter.png": (32, 24),
        "art/deep/kettle.png": (16, 16),
        "birds/heron.png": (20, 20),
    }
    assert "3 sheets told by texts" in found.of("loose")[0].note
    keep_profile(profile_text(found, "Moss Harbour"))
    catalogue = Catalogue(Install(game), tmp_path / "index.sqlite")
    catalogue.refresh()
    kinds = {path: catalogue.get(path).facts.kind for path in SIZES}
    assert {path for path, kind in kinds.items() if kind == "sheet"} == {
        sheet.picture for sheet in found.sheets
    }
    role = catalogue.install.profile.role_of("art/otter.png")
    assert role is not None and role.cell == (32, 24) and "art/otter.reed" in role.why
    catalogue.close()
