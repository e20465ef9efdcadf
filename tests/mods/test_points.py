"""The records of fit points: each is whole, and what they say of themselves holds for real specs."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from typing import Any

import pytest

from furnel.errors import FurnelError
from furnel.media import PictureSpec
from furnel.mods.fit import POINT_TYPES, compare, fit_all, mended, point_keys
from furnel.mods.fit.registry import served_by
from furnel.mods.project import Project, Swap
from furnel.mods.steps import STEP_TYPES
from furnel.schema import validated

HULL = PictureSpec("DDS", 64, 64, "BC1", 7, "none", 0.5, notes=(("header", "legacy"),), contrast=0.4)
WALK = replace(
    HULL, file_type="PNG", format="RGBA8", levels=1, cell=(16, 16), frames=16, alpha="cut-out", notes=()
)


def test_no_kind_has_two_points_of_one_key_and_every_step_named_exists() -> None:
    pairs = Counter((point.key, kind) for point in POINT_TYPES for kind in point.kinds)
    assert max(pairs.values()) == 1
    for point in POINT_TYPES:
        assert set(point.served_by) <= set(STEP_TYPES), point.key
        assert point.label and (point.why or point.kinds == ("other",)), point.key
        assert not (point.fit and not point.served_by), (
            f"{point.key}: Fit all would add a step that serves nothing"
        )


@pytest.mark.parametrize("original", [HULL, WALK], ids=["texture", "sheet"])
@pytest.mark.parametrize(
    ("change", "key"),
    [
        ({"width": 48}, "size"), ({"file_type": "TGA"}, "file"), ({"brightness": 0.9}, "brightness"),
        ({"contrast": 0.05}, "contrast"), ({"alpha": "smooth"}, "alpha"), ({"levels": 3}, "levels"),
    ],
)  # fmt: skip
def test_what_changes_is_the_point_that_says_so(
    original: PictureSpec, change: dict[str, Any], key: str
) -> None:
    assert {point.state for point in compare(original, original)} == {"fits"}
    worse = {point.key for point in compare(original, replace(original, **change)) if point.state != "fits"}
    assert key in worse and worse <= {key, "power of two", "format", "header"}


def test_a_kept_point_gets_no_step() -> None:
    source = replace(HULL, width=100, height=80, alpha="smooth")
    steps, _ = fit_all(HULL, source)
    assert [use.do for use in steps] == ["size", "opaque"]
    for use in steps:
        for key in served_by(use.do):
            kept, _ = fit_all(HULL, source, (key,))
            assert use.do not in [one.do for one in kept] or key in ("power of two", "multiple of four")


def test_a_point_without_a_mend_offers_none() -> None:
    swap = Swap(original="a.dds", source="b.png")
    for point in POINT_TYPES:
        if "sheet" in point.kinds and point.mend is None and not point.encoded:
            assert mended(swap, point.key, WALK, WALK) is None
    assert mended(swap, "no such point", WALK, WALK) is None


def test_an_unknown_key_to_keep_is_refused_with_the_known_ones(tmp_path: object) -> None:
    data = {
        "furnel": 1, "mod": {"id": "a", "name": "A"}, "game": {"profile": "tarnlight", "folder": "g"},
        "swaps": [{"original": "a.dds", "source": "b.png", "insist": ["sise"]}],
    }  # fmt: skip
    with pytest.raises(FurnelError, match="'sise'") as caught:
        validated(Project, data, "Reading a project", "furnel.toml", "docs/projects.md")
    assert all(key in str(caught.value) for key in point_keys())
