"""Making an install: every file of the game, from a seed."""

from __future__ import annotations

import struct
from pathlib import Path

import numpy as np

from tarnlight import content, sounds, writers
from tarnlight.art import ensigns, sprites

GAME = """# Tarnlight Ferry
name = "Tarnlight Ferry"
version = "1.2"
"""


def forge(folder: Path, seed: int = 1, scale: int = 1) -> int:
    """Write an install to `folder`; how many assets it has. `scale` repeats the content with variations."""
    data = folder / "data"
    textures: dict[str, bytes] = {}
    overlays: dict[str, bytes] = {}
    sheets: dict[str, bytes] = {}
    for copy in range(scale):
        mark = f"_{copy}" if copy else ""
        for path, (fmt, draw) in content.TEXTURES.items():
            rng = np.random.default_rng([seed, copy, *path.encode()])
            textures[path.replace(".dds", f"{mark}.dds")] = writers.dds(draw(rng), fmt)
        for path, (fmt, draw) in content.HUD.items():
            rng = np.random.default_rng([seed, copy, *path.encode()])
            overlays[path.replace(".dds", f"{mark}.dds")] = writers.dds(draw(rng), fmt)
        for path, (_, _, _, columns, frames) in content.SHEETS.items():
            sheets[path.replace(".png", f"{mark}.png")] = writers.png(
                sprites.sheet(frames(), columns), palette="passenger" in path
            )
        for path, (size, village) in content.ensign_paths().items():
            writers.put(
                data / "ensigns" / path.replace(".tga", f"{mark}.tga"),
                writers.tga(ensigns.ensign(village, size)),
            )
    writers.put(data / "art.tlp", writers.tlp(textures))
    writers.put(data / "hud.tlp", writers.tlp(overlays))
    writers.put(data / "cast.tlc", writers.tlc(sheets))
    bank = [
        writers.wav(sounds.event_sound(event, variation, seed + copy), sounds.RATE)
        for copy in range(scale)
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
    rules = content.rules()
    writers.put(data / "rules.zip", writers.zipped(rules))
    writers.put(folder / "tarnlight.toml", GAME.encode())
    (folder / "mods").mkdir(exist_ok=True)
    ensign_count = len(content.ensign_paths()) * scale
    return (
        len(textures) + len(overlays) + len(sheets) + ensign_count + len(bank) + 2 * len(tunes) + len(rules)
    )
