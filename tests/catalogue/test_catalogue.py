"""The catalogue: every asset with its facts, reopened without reading, narrowed and shown."""

from __future__ import annotations

import subprocess
import sys
import time
from collections import Counter
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.catalogue import ORDERS, Asset, Catalogue, Grouper, Shelf, Sieve, count_facets, preview, take_out
from furnel.catalogue.shelf import COLUMNS
from furnel.catalogue.takeout import converted
from furnel.errors import FurnelError
from furnel.games import Archive, Install
from furnel.games.profile import ArchiveRule
from furnel.media import KINDS, facts_of
from furnel.progress import QUIET
from furnel.sound import sound_info
from tarnlight.art.shore import icons
from tarnlight.content import HUD, MOVES, PAPERS, SHEETS, TEXTURES, bank


@pytest.fixture
def catalogue(game: Path, tmp_path: Path) -> Catalogue:
    made = Catalogue(Install(game), tmp_path / "index.sqlite")
    made.refresh()
    return made


def test_facts_are_what_the_game_made(catalogue: Catalogue) -> None:
    counts = count_facets(catalogue.assets).kinds
    assert counts["texture"] == len(TEXTURES) + len(HUD) + len(PAPERS) + 36 + len(icons())
    assert (counts["sheet"], counts["sound"], counts["music"], counts["definition"]) == (
        len(SHEETS) + len(MOVES) + 1,
        len(bank()),
        9,
        12,
    )
    for path, (fmt, _) in TEXTURES.items():
        facts = catalogue.get(path).facts
        assert facts.format == {"DXT1": "BC1", "DXT5": "BC3", "BGRA": "BGRA8"}.get(fmt, fmt)
        assert facts.levels == max(facts.width, facts.height).bit_length()
    for number in range(len(bank())):
        asset = catalogue.get(f"bank0/{number:03}.wav")
        info = sound_info(catalogue.read(asset))
        assert (asset.facts.rate, asset.facts.frames) == (info.rate, info.frames)
    assert catalogue.get("bank0/000.wav").name == "bell_near 1"


def test_a_known_game_is_opened_without_reading_it(
    catalogue: Catalogue, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def never(*_: object) -> None:
        raise AssertionError("an archive was read")

    again = Catalogue(Install(catalogue.install.folder), tmp_path / "index.sqlite")
    monkeypatch.setattr(Install, "glances", never)
    again.refresh()
    assert again.assets == catalogue.assets


def test_a_changed_archive_is_scanned_again_and_only_that(
    catalogue: Catalogue, monkeypatch: pytest.MonkeyPatch
) -> None:
    folder = catalogue.install.folder
    (folder / "data" / "ensigns" / "large" / "new.tga").write_bytes(
        (folder / "data/ensigns/large/fjell.tga").read_bytes()
    )
    scanned = []
    real = Install.glances
    monkeypatch.setattr(
        Install,
        "glances",
        lambda self, archive, size: scanned.append(archive.name) or real(self, archive, size),
    )
    catalogue.install.close()
    catalogue.refresh()
    assert scanned == ["ensigns"]
    assert catalogue.has("ensigns/large/new.tga")


def test_the_index_may_be_deleted_or_damaged(catalogue: Catalogue, tmp_path: Path) -> None:
    catalogue.close()
    for damage in (b"", b"not a database at all, but long enough to look like one" * 40):
        file = tmp_path / f"{len(damage)}.sqlite"
        file.write_bytes(damage)
        again = Catalogue(Install(catalogue.install.folder), file)
        again.refresh(QUIET)
        assert len(again.assets) == 203
        again.close()


def test_names_are_case_sensitive_and_the_right_one_is_said(catalogue: Catalogue) -> None:
    with pytest.raises(FurnelError, match="it is cast/otter_walk.png"):
        catalogue.get("cast/Otter_walk.png")


def test_every_asset_has_a_preview_that_is_kept(catalogue: Catalogue) -> None:
    for asset in catalogue.assets:
        made = preview(catalogue, asset)
        if asset.facts.kind == "other":
            assert made.fault
            continue
        again = preview(catalogue, asset)
        assert not made.fault and catalogue.kept_preview(asset) is not None
        if made.picture is not None:
            assert max(made.picture.size) <= 256 and again.picture is not None
            assert (made.picture.pixels == again.picture.pixels).all()
        elif made.waveform is not None:
            assert (made.waveform == again.waveform).all()
        else:
            assert made.text == again.text != ""


@given(st.binary(max_size=300), st.sampled_from(["a.dds", "a.tga", "a.png", "a.wav", "a.ogg", "a.toml", "a"]))
def test_facts_of_anything(data: bytes, path: str) -> None:
    assert facts_of(data, len(data), path).kind in KINDS


def many(count: int) -> Shelf:
    numbers = np.arange(count)
    columns = dict.fromkeys(COLUMNS, np.zeros(count, np.int64))
    columns |= {
        "kind": numbers % 3,
        "width": 1 << numbers % 12,
        "height": np.full(count, 64),
        "size": 100 + numbers,
    }
    archive = Archive(Path("x.tlp"), ArchiveRule(files="x", layout="tlp"), "")
    paths = [f"art/{n % 100:02}/Thing_{n}.dds" for n in range(count)]
    return Shelf(paths, columns, ("BC1",), ("",), (archive,), {"art/07/Thing_7.dds": "Old Bell"})


@given(
    st.text("thing_0123456789 -", max_size=8), st.sets(st.sampled_from(KINDS)), st.integers(0, 4000), st.integers(0, 4000),
)  # fmt: skip
def test_the_sieve_is_the_sum_of_its_parts(text: str, kinds: set[str], low: int, high: int) -> None:
    shelf = many(300)
    kept = Sieve(text, frozenset(kinds), frozenset(), (low, high)).mask(shelf)
    for row, asset in enumerate(shelf):
        side = max(asset.facts.width, asset.facts.height)
        plain = (
            all(
                (w[1:] not in told) if w[0] == "-" and w[1:] else w in told
                for told in [f"{asset.path} {asset.title}".lower()]
                for w in text.split()
            )
            and (not kinds or asset.facts.kind in kinds)
            and low <= side <= high
        )
        assert kept[row] == plain
    for by, order in zip(("folder", "size", "kind", "nothing", "folder", "archive"), ORDERS, strict=True):
        groups = Grouper(shelf).groups(kept, by, order)
        assert sorted(row for group in groups for row in group.rows.tolist()) == np.flatnonzero(kept).tolist()
    powers = Counter(int(np.log2(shelf.longer_side[row])) for row in np.flatnonzero(kept))
    assert count_facets(shelf, kept).pixels == dict(sorted(powers.items()))


def test_titles_are_found_and_folders_hold_what_is_below_them() -> None:
    shelf = many(300)
    assert np.flatnonzero(Sieve("old bell").mask(shelf)).tolist() == [7]
    assert np.flatnonzero(Sieve(folder="art/05").mask(shelf)).tolist() == [5, 105, 205]
    assert Sieve(folder="art").mask(shelf).all() and not Sieve(folder="ar").mask(shelf).any()
    groups = Grouper(shelf).groups(Sieve("thing_1").mask(shelf), "folder", "name")
    assert [group.name for group in groups] == sorted(
        {f"art/{n % 100:02}" for n in range(300) if str(n)[0] == "1"}
    )
    assert groups[0].rows.tolist() == [100] and shelf[7].name == "Old Bell"


@pytest.mark.parametrize(
    ("order", "value"),
    [
        ("largest", lambda asset: -asset.facts.width * asset.facts.height), ("heaviest", lambda asset: -asset.size),
        ("smallest", lambda asset: asset.facts.width * asset.facts.height), ("name", lambda asset: asset.path),
    ],
)  # fmt: skip
def test_the_wall_has_an_order(order: str, value: Callable[[Asset], float | str]) -> None:
    shelf = many(300)
    (group,) = Grouper(shelf).groups(None, "nothing", order)
    told = [value(shelf[row]) for row in group.rows.tolist()]
    assert told == sorted(told) and len(told) == 300


@pytest.mark.parametrize(
    ("typed", "near"),
    [
        ("old bel", "old bel"), ("old bxll", "old bell"), ("thang", "thing"), ("thimg -old", "thing -old"), ("qqq", ""),
        ("xy", ""),
    ],
)  # fmt: skip
def test_a_slip_in_the_search_is_mended(typed: str, near: str) -> None:
    assert many(300).mended(typed) == near


def test_a_hundred_thousand_assets_are_sieved_in_a_blink() -> None:
    shelf = many(100_000)
    started = time.process_time()
    kept = Sieve(text="thing_77").mask(shelf)
    assert Grouper(shelf).groups(kept, "folder", "largest")[0].name == "art/00"
    assert kept.sum() == 1111 and time.process_time() - started < 2


def test_taking_out_keeps_folders_and_converts(catalogue: Catalogue, tmp_path: Path) -> None:
    paths = ["art/hulls/hull_otter.dds", "bank0/000.wav", "rules/boats.toml"]
    read = lambda path: catalogue.read(catalogue.get(path))  # noqa: E731
    raw = take_out(paths, read, tmp_path / "raw")
    assert [file.relative_to(tmp_path / "raw").as_posix() for file in raw] == paths
    assert raw[0].read_bytes() == read(paths[0])
    png = take_out(paths, read, tmp_path / "png", "png")
    assert [file.suffix for file in png] == [".png", ".wav", ".toml"]
    wav, suffix = converted(read("music/fog.ogg"), "music/fog.ogg", "wav")
    assert (suffix, sound_info(wav).frames) == (".wav", catalogue.get("music/fog.ogg").facts.frames)
    with pytest.raises(FurnelError, match="not safe"):
        take_out(["../x"], read, tmp_path)


@pytest.mark.parametrize("levels", [15, 1])
def test_a_huge_texture_is_looked_at_within_little_memory(tmp_path: Path, levels: int) -> None:
    """16384 × 16384 pixels of BC7: 256 MiB a level, of which next to nothing may be read."""
    code = f"""
import resource, struct, sys
from pathlib import Path
from furnel import blocks
from furnel.media import preview_of
from furnel.containers.folder import Folder
from furnel.images.formats import FORMATS, level_size
blocks.warm()
folder = Path({str(tmp_path)!r})
head = struct.pack("<4s7I44x", b"DDS ", 124, 0xA1007, 16384, 16384, 0, 0, {levels})
head += struct.pack("<2I4s5I5I", 32, 4, b"DX10", 0, 0, 0, 0, 0, 0x401008, 0, 0, 0, 0) + struct.pack("<5I", 98, 3, 0, 1, 0)
size = sum(FORMATS["BC7"].level_bytes(*level_size(16384, 16384, level)) for level in range({levels}))
with (folder / "huge.dds").open("wb") as stream:
    stream.write(head)
    stream.truncate(len(head) + size)
container = Folder(folder)
warm = preview_of(bytes(head[:28]) , "texture", "warm")
before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
made = preview_of(container.view("huge.dds"), "texture", "huge.dds")
assert made.picture is not None and made.picture.size == (256, 256), made.fault
print((resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024)
"""
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    assert float(done.stdout) < 50
