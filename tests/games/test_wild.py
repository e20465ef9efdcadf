"""Made-up games of many shapes, made by chance: opened, counted against what was made, changed in place, given back."""

from __future__ import annotations

import gzip
import io
import random
import wave
import zipfile
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from tests.conftest import digest

from furnel.catalogue import Catalogue, mark_all
from furnel.games import Install, keep_profile, profile_text, survey
from furnel.mods.build import build
from furnel.mods.definitions import with_text
from furnel.mods.deploy import install_mod, remove_mod
from furnel.mods.workspace import create_project, open_workspace

WORDS = ("otter", "heron", "reed", "lantern", "quay", "moss", "kettle", "fjell", "skiff", "tide")


def picture(chance: random.Random, kind: str) -> bytes:
    pixels = np.random.default_rng(chance.randrange(1 << 30)).integers(0, 255, (9, 14, 3), dtype=np.uint8)
    stream = io.BytesIO()
    Image.fromarray(pixels).save(stream, kind)
    return stream.getvalue()


def sound(chance: random.Random) -> bytes:
    stream = io.BytesIO()
    with wave.open(stream, "wb") as out:
        out.setnchannels(1), out.setsampwidth(2), out.setframerate(8000)
        out.writeframes(
            np.random.default_rng(chance.randrange(9)).integers(-99, 99, 900).astype("<i2").tobytes()
        )
    return stream.getvalue()


def text(chance: random.Random) -> bytes:
    line = f'({chance.choice(WORDS)} "{chance.choice(WORDS)}" {chance.randrange(99)})'
    ends = chance.choice((b"\n", b"\r\n"))
    code = chance.choice(("utf-8", "latin-1", "utf-16"))
    return (
        ends.join(f"{line} gr\u00fcn".encode("latin-1") for _ in range(9))
        if code == "latin-1"
        else (f"{line} gr\u00fcn\n" * 9).encode(code)
    )


MAKERS = {
    ".png": lambda chance: picture(chance, "PNG"), ".jpg": lambda chance: picture(chance, "JPEG"),
    ".bmp": lambda chance: picture(chance, "BMP"), ".gif": lambda chance: picture(chance, "GIF"),
    ".wav": sound, ".reed": text, ".txt": lambda chance: b"plain words\n" * 4,
    ".it": lambda chance: b"IMPM" + b"tune".ljust(26, b"\0") + bytes(200), ".gz": lambda chance: gzip.compress(b"map" * 99),
    ".bin": lambda chance: chance.randbytes(chance.randrange(3000)), "": lambda chance: b"a file with no ending\n",
}  # fmt: skip
SHAPES = {
    "all": tuple(MAKERS), "texts": (".reed", ".txt", ""), "no pictures": (".wav", ".reed", ".it"), "pictures": (".png", ".gif"),
    "old": (".bmp", ".wav", ".bin", ".reed"),
}  # fmt: skip


def made(root: Path, seed: int) -> tuple[dict[str, bytes], list[str]]:
    """A game's folder; the bytes of all that is an asset by its path in the game, and what is none."""
    chance = random.Random(seed)
    endings = SHAPES[list(SHAPES)[seed % len(SHAPES)]]
    homes = [""] + [
        "/".join(chance.choice((*WORDS, "v1.2", "Data", "two words")) for _ in range(chance.randrange(1, 4)))
        for _ in range(6)
    ]
    assets: dict[str, bytes] = {}
    for number in range(30):
        ending = endings[number % len(endings)]
        path = f"{chance.choice(homes)}/{chance.choice(WORDS)}{number}{ending}".lstrip("/")
        assets[path] = MAKERS[ending](chance)
    for path, data in assets.items():
        (root / path).parent.mkdir(parents=True, exist_ok=True)
        (root / path).write_bytes(data)
    first, left = next(iter(assets)), []
    if seed % 2:
        (
            (root / "gone").symlink_to("nowhere"),
            (root / "again").symlink_to(first),
            (root / "circle").symlink_to("."),
        )
        left += ["gone", "again", "circle"]
    if seed % 3 == 0:  # archives, of one layout and of a name that clashes with a folder
        for name in ("alpha", "beta"):
            with zipfile.ZipFile(root / f"{name}.pak", "w") as pack:
                pack.writestr("deep/a.txt", f"{name}\n" * 3)
            assets[f"{name}/deep/a.txt"] = f"{name}\n".encode() * 3
    return {
        (f"{path}/{Path(path).stem}" if path.endswith(".gz") else path): (
            b"map" * 99 if path.endswith(".gz") else data
        )
        for path, data in assets.items()
    }, left


@pytest.mark.parametrize("seed", range(20))
def test_any_games_folder_opens_whole(seed: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    root = tmp_path / "game"
    root.mkdir()
    assets, left = made(root, seed)
    found = survey(root)
    assert {one.path for one in found.of("none")} == set(left)
    keep_profile(profile_text(found, f"Wild {seed}"))
    catalogue = Catalogue(Install(root), tmp_path / "index.sqlite")
    catalogue.refresh()
    carved = {one.path for one in found.of("carved")}
    if not carved:  # bytes of chance may hold something
        assert sorted(catalogue.assets.paths) == sorted(assets)
        assert all(catalogue.bytes_of(path) == data for path, data in assets.items())
    mark_all(catalogue)
    catalogue.close()
    before = digest(root)
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", root))
    path = next((one for one in assets if one.endswith((".reed", ".txt")) and one in found.loose), "")
    if path:
        space = space.save(with_text(space, path, "changed\n"))
        install_mod(space.catalogue.install, "evening-post", build(space).folder)
        now = (root / path).read_bytes()
        assert (
            now != assets[path]
            and now.decode("utf-16" if now[:2] == b"\xff\xfe" else "utf-8").strip() == "changed"
        )
        remove_mod(space.catalogue.install, "evening-post")
    space.close()
    assert digest(root) == before
