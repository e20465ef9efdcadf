"""What the game reads in its texts, and what it makes of each."""

from __future__ import annotations

import configparser
import csv
import io
import json
import re
import tomllib
import xml.etree.ElementTree as ElementTree
from collections.abc import Callable
from typing import Any

from tarnlight.loaders import Broken
from tarnlight.sounds import PARTS

Finds = Callable[[str], bool]
"""Whether the game or a mod has an asset."""
PLANES = 6.0
_BOAT = {"name": str, "hull": str, "sail": str, "length_m": (int, float), "speed": (int, float)}
_WARE = {"picture": str, "price": (int, float), "title": str, "text": str, "credit": str}
_TUNE = {"title": str, "by": str, "on": bool}
_SONG = {"title": str, "artist": str, "tempo": (int, float), "key": str, "scene": str, "parts": dict}
_PASSENGER = {"id": str, "sheet": str, "strip": list, "waits_at": str}
_SCENES = ("quay", "open water", "lamp store", "chart room", "shore")


def read(path: str, data: bytes) -> Any:
    """A text's content as plain data. Raises Broken when it cannot be read."""
    try:
        text = data.decode("utf-8")
        if path.endswith(".json"):
            return json.loads(text, object_pairs_hook=_once)
        if path.endswith(".toml"):
            return tomllib.loads(text)
        if path.endswith(".xml"):
            return _scenes(ElementTree.fromstring(text))
        if path.endswith(".csv"):
            return list(csv.DictReader(io.StringIO(text)))
        if path.endswith(".yard"):
            return _berths_of(text)
        if path.endswith(".ini"):
            parser = configparser.ConfigParser(interpolation=None)
            parser.read_string(text)
            return {name: dict(parser[name]) for name in parser.sections()}
    except (ValueError, configparser.Error, ElementTree.ParseError, csv.Error) as error:
        raise Broken(f"not readable: {error}") from error
    return text


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    out = dict(pairs)
    if len(out) != len(pairs):
        raise ValueError("a key is there twice")
    return out


def _berths_of(text: str) -> dict[str, dict[str, Any]]:
    """Berths in the yard's own notation: `berth name { key = value; }`, values quoted, bare, or lists in parentheses."""
    out: dict[str, dict[str, Any]] = {}
    text = re.sub(r"--[^\n]*", "", text)
    for name, body in re.findall(r"berth\s+('[^']*'|\S+)\s*\{(.*?)\}", text, re.DOTALL):
        rows = re.findall(r"(\w+)\s*=\s*(\([^)]*\)|'[^']*'|[^;]*?)\s*;", body)
        if re.sub(r"(\w+)\s*=\s*(\([^)]*\)|'[^']*'|[^;]*?)\s*;", "", body).strip():
            raise Broken(f"the berth {name} has something that is no value")
        out[name.strip("'")] = {
            key: [part.strip() for part in value[1:-1].split(",") if part.strip()]
            if value.startswith("(")
            else value.strip("'")
            for key, value in rows
        }
    if re.sub(r"berth\s+('[^']*'|\S+)\s*\{.*?\}", "", text, flags=re.DOTALL).strip():
        raise Broken("there is something between the berths")
    return out


def _scenes(root: ElementTree.Element) -> dict[str, dict[str, Any]]:
    out: dict[str, dict[str, Any]] = {}
    for scene in root.iter("scene"):
        name = scene.attrib["id"]
        if name in out:
            raise Broken(f"two scenes are called {name}")
        out[name] = {
            **scene.attrib,
            "boats": [dict(boat.attrib) for boat in scene.iter("boat")],
            "ensigns": [dict(flag.attrib) for flag in scene.iter("ensign")],
        }
    return out


LAID_OVER = ("rules/boats.toml", "rules/strings.csv")
"""Texts of which a mod may have a part: its records stand in the place of the game's, or come after them."""


def laid_over(path: str, content: Any, more: Any) -> Any:
    """A text's content with a mod's records over it."""
    if path.endswith(".toml"):
        return {**content, **more}
    own: dict[str, Any] = {}
    again = []
    for row in more:
        if own.setdefault(row["key"], row) is not row:
            again.append(row)
    kept = [own.pop(row["key"], row) for row in content]
    return [*kept, *own.values(), *again]


def judge(path: str, content: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    """What is wrong with a text (nothing: an empty one) and what reading it does; `other` reads another text of the game.

    Raises Broken when the game does not use it.
    """
    read_one = _JUDGES.get(path)
    return read_one(content, has, other) if read_one is not None else ("", "is read")


def _fields(name: str, row: Any, wanted: dict[str, Any]) -> str:
    """What is not known of a record. Raises Broken for what is missing or of another type."""
    if not isinstance(row, dict):
        raise Broken(f"{name} is no record")
    for key, kind in wanted.items():
        if key not in row:
            raise Broken(f"{name} has no {key}")
        if not isinstance(row[key], kind) or (isinstance(row[key], bool) and kind is not bool):
            raise Broken(f"{name} has {row[key]!r} for {key}")
    return ", ".join(f"{name} has {key}, which the game does not know" for key in row if key not in wanted)


def _need(has: Finds, name: str, path: str, folder: str) -> None:
    if not path.startswith(folder) or not has(path):
        raise Broken(f"{name} names {path}, which is nowhere")


def _boats(boats: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    faults = []
    for name, boat in boats.items():
        faults.append(_fields(name, boat, _BOAT))
        _need(has, name, boat["hull"], "art/hulls/")
        _need(has, name, boat["sail"], "art/sails/")
        if boat["speed"] <= 0 or boat["length_m"] <= 0:
            raise Broken(f"{name} does not move")
        if boat["speed"] >= PLANES:
            faults.append(f"{name} planes at {boat['speed']:g}: the game shows it flying")
    return ", ".join(filter(None, faults)), f"hires out {len(boats)} boats"


def _scene(scenes: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    boats, villages, tunes = other("rules/boats.toml"), other("rules/villages.ini"), other("rules/tunes.json")
    for name, scene in scenes.items():
        if name not in _SCENES:
            return f"there is no scene {name}", "shows the others"
        if scene["music"] not in tunes:
            raise Broken(f"{name} plays {scene['music']}, which is nowhere")
        for boat in scene["boats"]:
            if boat["ref"] not in boats:
                raise Broken(f"{name} shows the boat {boat['ref']}, which is nowhere")
            if not 0 <= float(boat["x"]) <= 1:
                return f"{boat['ref']} is out of sight in {name}", "shows the others"
        for flag in scene["ensigns"]:
            if flag["village"] not in villages:
                raise Broken(f"{name} shows the ensign of {flag['village']}, which is nowhere")
    return "", f"shows {sum(len(scene['boats']) for scene in scenes.values())} boats"


def _berths(berths: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    boats = other("rules/boats.toml")
    for name, berth in berths.items():
        if set(berth) != {"boat", "lamps", "depth_m"}:
            raise Broken(f"{name} has other keys than boat, lamps and depth_m")
        if berth["boat"] not in boats:
            raise Broken(f"{berth['boat']} lies at {name}, and is nowhere")
        if float(berth["depth_m"]) < 1:
            return f"{name} is too shallow for any boat", "leaves it empty"
    return "", f"has {len(berths)} berths"


def _playlist(lists: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    tunes = other("rules/tunes.json")
    for scene, names in lists.items():
        if scene not in _SCENES:
            return f"there is no scene {scene}", "plays the others"
        for name in names:
            if name not in tunes or not has(f"music/{name}.ogg"):
                raise Broken(f"{scene} plays {name}, which is nowhere")
        if len(set(names)) != len(names):
            return f"{scene} plays a tune twice in a row", "plays it twice"
    return "", f"plays {sum(map(len, lists.values()))} tunes in {len(lists)} scenes"


def _tunes(tunes: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    faults = []
    for name, tune in tunes.items():
        faults.append(_fields(name, tune, _TUNE))
        if not has(f"music/{name}.ogg") or not has(f"music/{name}.loop"):
            raise Broken(f"{name} has no music or no loop record")
    return ", ".join(filter(None, faults)), f"knows {len(tunes)} tunes"


def _songs(songs: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    faults = []
    for name, song in songs.items():
        faults.append(_fields(name, song, _SONG))
        if song["scene"] not in _SCENES or not 40 <= song["tempo"] <= 240:
            raise Broken(f"{name} is sung nowhere, or at no tempo")
        if not song["parts"] or not set(song["parts"]) <= set(PARTS):
            raise Broken(f"{name} has other parts than {', '.join(PARTS)}")
        for path in song["parts"].values():
            _need(has, name, path, f"songs/{name}/")
    return ", ".join(filter(None, faults)), f"sings {len(songs)} songs"


def _wares(wares: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    words = {row["key"] for row in other("rules/strings.csv")}
    faults = []
    for name, ware in wares.items():
        faults.append(_fields(name, ware, _WARE))
        _need(has, name, ware["picture"], "portraits/")
        for key in ("title", "text"):
            if ware[key] not in words:
                faults.append(f"{name} shows {ware[key]} for its {key}")
        if ware["price"] < 0:
            raise Broken(f"{name} costs less than nothing")
    return ", ".join(filter(None, faults)), f"sells {len(wares)} pictures"


def _villages(villages: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    words = {row["key"] for row in other("rules/strings.csv")}
    faults = []
    for name, village in villages.items():
        if set(village) != {"title", "ensign", "bags"}:
            raise Broken(f"{name} has other keys than title, ensign and bags")
        for size in ("small", "medium", "large"):
            _need(has, name, f"ensigns/{size}/{village['ensign']}.tga", "ensigns/")
        if not village["bags"].isdigit():
            raise Broken(f"{name} gets {village['bags']} bags")
        if village["title"] not in words:
            faults.append(f"{name} shows {village['title']} for its name")
    return ", ".join(faults), f"brings the mail to {len(villages)} villages"


def _passengers(rows: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    faults, names = [], [row["id"] for row in rows]
    for row in rows:
        name = row["id"]
        faults.append(
            _fields(
                name, {key: row[key] for key in row if key not in ("portrait", "portrait_strip")}, _PASSENGER
            )
        )
        _need(has, name, row["sheet"], "cast/")
        if len(row["strip"]) != 4 or not all(
            type(one) is int and 0 <= one <= 0xFFFFFF for one in row["strip"]
        ):
            raise Broken(f"{name} has no strip of four colours")
        if "portrait_strip" in row and not all(
            re.fullmatch("[0-9a-f]{6}", str(one)) for one in row["portrait_strip"]
        ):
            raise Broken(f"{name} has a portrait's strip that is no colours")
        if sum(row["strip"][-1].to_bytes(3, "big")) < sum(row["strip"][0].to_bytes(3, "big")):
            faults.append(f"{name} has its strip from light to dark")
    if len(set(names)) != len(names):
        faults.append("two passengers of one id: the second never comes")
    return ", ".join(filter(None, faults)), f"ferries {len(rows)} passengers"


def _strings(rows: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    keys = [row["key"] for row in rows]
    if any(None in row or None in row.values() for row in rows):
        raise Broken("a row has more or fewer values than there are columns")
    twice = {key for key in keys if keys.count(key) > 1}
    return (f"{', '.join(sorted(twice))} stands there twice" if twice else ""), f"knows {len(keys)} words"


def _events(events: Any, has: Finds, other: Callable[[str], Any]) -> tuple[str, str]:
    for name, rule in events.items():
        if not rule["sounds"]:
            raise Broken(f"{name} has no sound")
        for path in rule["sounds"]:
            if not has(path):
                raise Broken(f"{name} plays {path}, which is nowhere")
        if not 0 <= rule["volume"] <= 1 or not 0 <= rule["fade_from_m"] < rule["silent_at_m"]:
            raise Broken(f"{name} is heard at distances that make no sense")
    return "", f"plays {sum(len(rule['sounds']) for rule in events.values())} sounds for {len(events)} events"


_JUDGES: dict[str, Callable[[Any, Finds, Callable[[str], Any]], tuple[str, str]]] = {
    "rules/boats.toml": _boats, "rules/scene.xml": _scene, "rules/playlist.json": _playlist, "rules/tunes.json": _tunes,
    "rules/songs.json": _songs, "rules/wares.json": _wares, "rules/villages.ini": _villages,
    "rules/passengers.json": _passengers, "rules/berths.yard": _berths, "rules/strings.csv": _strings,
    "rules/sound-events.json": _events,
}  # fmt: skip


def named(book: Callable[[str], Any]) -> set[str]:
    """The assets that the game's texts name; `book` reads one of them."""
    out = {path for rule in book("rules/sound-events.json").values() for path in rule["sounds"]}
    out |= {boat[part] for boat in book("rules/boats.toml").values() for part in ("hull", "sail")}
    out |= {ware["picture"] for ware in book("rules/wares.json").values()}
    out |= {
        row[part] for row in book("rules/passengers.json") for part in ("sheet", "portrait") if part in row
    }
    out |= {f"music/{name}.{end}" for name in book("rules/tunes.json") for end in ("ogg", "loop")}
    out |= {path for song in book("rules/songs.json").values() for path in song["parts"].values()}
    ensigns = [village["ensign"] for village in book("rules/villages.ini").values()]
    return out | {f"ensigns/{size}/{name}.tga" for size in ("small", "medium", "large") for name in ensigns}
