"""Making an install: every file of the game, from a seed."""

from __future__ import annotations

import json
import struct
import zlib
from collections.abc import Sized
from pathlib import Path

import numpy as np

from tarnlight import content, rulebook, sounds, writers
from tarnlight.art import ensigns, shore, sprites
from tarnlight.content import Draw
from tarnlight.copies import write_copies

GAME = """# Tarnlight Ferry
name = "Tarnlight Ferry"
version = "1.2"
"""


def forge(folder: Path, seed: int = 1, scale: int = 1) -> int:
    """Write an install to `folder`; how many assets it has. `scale` adds small variations of everything, in archives of
    their own that the game does not show."""
    data = folder / "data"
    textures, overlays, papers = (
        _drawn(group, seed) for group in (content.TEXTURES, content.HUD, content.PAPERS)
    )
    sheets = {
        path: writers.png(sprites.sheet(frames(), columns), palette="passenger" in path)
        for path, (_, _, _, columns, frames) in content.SHEETS.items()
    }
    sheets |= {
        path: writers.png(moves.draw(), palette="mask" in path) for path, moves in content.MOVES.items()
    }
    sheets |= {path: writers.png(pixels) for path, pixels in shore.icons().items()}
    sheets[content.DOCK] = writers.png(shore.dock_tiles())
    for path, (size, village) in content.ensign_paths().items():
        writers.put(data / "ensigns" / path, writers.tga(ensigns.ensign(village, size)))
    writers.put(data / "art.tlp", writers.tlp(textures))
    writers.put(data / "hud.tlp", writers.tlp(overlays))
    writers.put(data / "cast.tlc", writers.tlc(sheets))
    charts = {path: made for path, made in papers.items() if path.startswith("charts/")}
    writers.put(data / "charts.tlk", writers.tlk(charts))
    writers.put(
        data / "hash.tlh", writers.tlh({path: made for path, made in papers.items() if path not in charts})
    )
    bank = [
        writers.wav(sounds.event_sound(event, variation, seed), sounds.RATE)
        for event, variation in content.bank()
    ]
    for suffix, part in zip((".tls", ".tlx", ".sum"), writers.tls(bank), strict=True):
        writers.put(data / f"bank0{suffix}", part)
    tunes = {}
    for number, (name, (tempo, *_)) in enumerate(sounds.TUNES.items()):
        wave, start, end = sounds.tune(name, seed)
        loop = struct.pack("<IIIf", start, end, sounds.MUSIC_RATE, tempo)
        tunes[name] = (loop, writers.ogg(wave, sounds.MUSIC_RATE, 1000 + number))
    writers.put(data / "music.tlm", writers.tlm(tunes))
    rules = rulebook.rules()
    parts = 0
    for name, song in json.loads(rules["songs.json"]).items():
        files = {
            path: writers.ogg(sounds.song_part(name, part, seed), sounds.MUSIC_RATE, 2000 + number)
            for number, (part, path) in enumerate(song["parts"].items())
        }
        packed = writers.tlp(files)
        writers.put(data / "songs" / name / f"{name}.tlp", packed)
        writers.put(data / "songs" / name / f"{name}.sum", f"{zlib.crc32(packed):08x}\n".encode())
        parts += len(files)
    writers.put(data / "rules.zip", writers.zipped(rules))
    writers.put(folder / "tarnlight.toml", GAME.encode())
    (folder / "mods").mkdir(exist_ok=True)
    made: tuple[Sized, ...] = (textures, overlays, papers, sheets, content.ensign_paths(), bank, rules)
    own = sum(map(len, made))
    return own + parts + 2 * len(tunes) + write_copies(data, seed, scale)


def _drawn(group: dict[str, tuple[str, Draw]], seed: int) -> dict[str, bytes]:
    return {
        path: writers.dds(draw(np.random.default_rng([seed, 0, *path.encode()])), fmt)
        for path, (fmt, draw) in group.items()
    }
