"""The texts that tell the game how to use its assets, as they ship."""

from __future__ import annotations

import json

from tarnlight.art import sprites
from tarnlight.art.ensigns import VILLAGES
from tarnlight.content import bank
from tarnlight.sounds import SONGS

_BOATS = """# The boats that the yard hires out.
[otter]
name = "Otter"
hull = "art/hulls/hull_otter.dds"   # the night-mail ferry
sail = "art/sails/sail_heron.dds"
length_m = 7.4
speed = 3.2

[heron]
name = "Heron"
hull = "art/hulls/hull_heron.dds"
sail = "art/sails/sail_night.dds"
length_m = 6.1
speed = 3.9

[skiff]
name = "Skiff"
hull = "art/hulls/hull_skiff.dds"
sail = "art/sails/jib_plain.dds"
length_m = 4.0
speed = 2.4

[herring]
name = "Herring"
hull = "art/hulls/hull_mail.dds"
sail = "art/sails/sail_herring.dds"
length_m = 8.2
speed = 2.9
"""
_SCENES = """<?xml version="1.0" encoding="UTF-8"?>
<scenes>
  <!-- where the ferry lies at dusk -->
  <scene id="quay" music="slow_water" sky="art/sky/dusk.dds">
    <boat ref="otter" x="0.667"/>
    <ensign village="aldvik" x="0.49"/>
  </scene>
  <scene id="open water" music="reel_night" sky="art/sky/dusk.dds">
    <boat ref="heron" x="0.783" lane="far"/>
    <boat ref="otter" x="0.417" lane="near"/>
  </scene>
  <scene id="lamp store" music="fog"/>
  <scene id="chart room" music="lantern_waltz"/>
</scenes>
"""
_BERTHS = """-- where the boats lie at night
berth north {
    boat = 'otter';
    lamps = (warm, cold);   -- the cold one is for fog
    depth_m = 2.4;
}
berth south {
    boat = 'skiff';
    lamps = (warm);
    depth_m = 1.6;
}
berth "long pier" { boat = 'herring'; lamps = (); depth_m = 3.0; }
""".replace('"', "'")
_PLAYLIST = {
    "quay": ["slow_water", "fog"],
    "open water": ["reel_night", "lantern_waltz"],
    "lamp store": ["fog"],
    "chart room": ["lantern_waltz"],
}
_TUNES = {
    "fog": ("Fog on the tarn", "The boathouse three", True),
    "lantern_waltz": ("Lantern waltz", "The boathouse three", True),
    "reel_night": ("Night reel", "Ullmere fiddlers", True),
    "slow_water": ("Slow water", "Ullmere fiddlers", True),
}
_SONGS = {
    "evening_crossing": (
        "Evening crossing",
        "Ullmere fiddlers",
        "D minor",
        "open water",
        ("oars", "bass", "reed"),
    ),
    "lamp_round": ("Lamp round", "The boathouse three", "A minor", "lamp store", ("oars", "bells")),
}
_COATS = {"clerk": "c8553d", "nurse": "3f7d8c", "piper": "8a9a4b"}
_WARES = (
    ("ada_at_dusk", "portraits/ada.dds", 12),
    ("bram_rowing", "portraits/bram.dds", 18),
    ("old_corin", "portraits/corin.dds", 9),
)
_MAIL = (3, 5, 2, 4, 6, 1, 3, 2, 4, 5, 2, 3)


def strip(tint: str) -> list[int]:
    """A coat's four colours from dark to light, as the numbers that the game reads."""
    red, green, blue = (int(tint[at : at + 2], 16) for at in (0, 2, 4))
    return [
        (round(red * part / 3) << 16) + (round(green * part / 3) << 8) + round(blue * part / 3)
        for part in range(4)
    ]


def rules() -> dict[str, bytes]:
    """The texts by file name."""
    numbers: dict[str, list[str]] = {}
    for number, (event, _) in enumerate(bank()):
        numbers.setdefault(event, []).append(f"bank0/{number:03}.wav")
    events = {
        event: {"sounds": files, "volume": 0.8, "fade_from_m": 12, "silent_at_m": 80}
        for event, files in numbers.items()
    }
    palette = {
        "otter": dict(sprites.OTTER),
        "otter_grey": dict(sprites.GREY_OTTER),
        "lantern": ["ffb45a", "fff3c4"],
        "sailor": {"red": "c07a4c", "green": "f0d9b0", "blue": "3f6f9c"},
    }
    passengers = [
        {"id": name, "sheet": "cast/passenger_idle.png", "strip": strip(tint), "waits_at": "quay"}
        for name, tint in _COATS.items()
    ]
    tunes = {name: {"title": title, "by": by, "on": on} for name, (title, by, on) in _TUNES.items()}
    songs = {
        name: {
            "title": title, "artist": artist, "tempo": SONGS[name][0], "key": key, "scene": scene,
            "parts": {part: f"songs/{name}/{part}.ogg" for part in parts},
        }
        for name, (title, artist, key, scene, parts) in _SONGS.items()
    }  # fmt: skip
    wares = {
        name: {
            "picture": picture,
            "price": price,
            "title": f"ware.{name}",
            "text": f"ware.{name}.text",
            "credit": "The yard",
        }
        for name, picture, price in _WARES
    }
    villages = "; where the mail goes\n" + "".join(
        f"\n[{name}]\ntitle = village.{name}\nensign = {name}\nbags = {bags}\n"
        for name, bags in zip(VILLAGES, _MAIL, strict=True)
    )
    words = {"quay": "The quay", "open_water": "Open water", "mail": "Night mail"}
    words |= {f"village.{name}": name.title() for name in VILLAGES}
    for name, *_ in _WARES:
        words |= {
            f"ware.{name}": name.replace("_", " ").capitalize(),
            f"ware.{name}.text": "Hangs in the chart room",
        }
    strings = "key,en\n" + "".join(f"{key},{word}\n" for key, word in words.items())
    texts = {
        "boats.toml": _BOATS,
        "scene.xml": _SCENES,
        "villages.ini": villages,
        "strings.csv": strings,
        "berths.yard": _BERTHS,
    }
    trees = {
        "sound-events.json": events, "playlist.json": _PLAYLIST, "palette.json": palette, "passengers.json": passengers,
        "songs.json": songs, "tunes.json": tunes, "wares.json": wares,
    }  # fmt: skip
    return {name: text.encode() for name, text in texts.items()} | {
        name: json.dumps(tree, indent=2).encode() + b"\n" for name, tree in trees.items()
    }
