"""Damaged files without end: run as a program of its own, with no more memory than a file may cost.

`python -m tests.fuzzing FAMILY SECONDS SEED FOLDER` says in JSON what ended in anything but a result or a FurnelError.
"""

from __future__ import annotations

import contextlib
import io
import json
import os
import random
import resource
import struct
import sys
import time
import traceback
import warnings
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image
from pydantic import ValidationError

from furnel import imagefiles, sound
from furnel.containers import Changes, find_layout, open_container, open_layout
from furnel.errors import FurnelError
from furnel.games.modfiles import FACTS, AboutFile, OrderFile
from furnel.games.profile import parse_profile
from furnel.images.picture import Picture
from furnel.media import Encode, spec_of
from furnel.media.picture import encode_levels
from furnel.mods.loadouts import read_load_out
from furnel.mods.patches import PATCHES, read_patches
from furnel.mods.project import load_project
from furnel.sound import Clip, read_clip, write_clip
from furnel.texts import (
    Change,
    address_text,
    applied,
    difference,
    document_of,
    merged,
    read_events,
    spots,
    with_events,
)
from furnel.texts.events import EventKeys
from tarnlight import writers
from tests.containers import makers

MOST_BYTES, MOST_S = 256 << 20, 2.0
Corpus = dict[str, bytes]
Use = Callable[[str, bytes], object]
_POISON = (
    b"\xff\xff\xff\xff", b"\0\0\0\0", b"\xff\xff\xff\x7f", b"\0\0\x80\x7f", b"\0\0\xc0\x7f", b"\0\x7c\0\x7e",
    b"\xff" * 8, b"\xff\xff\xff\xff\xff\xff\xff\x7f", b"\1\0\0\0", b"\0\0\0\x10",
)  # fmt: skip


def mutated(data: bytes, chance: random.Random) -> bytes:
    """Bytes flipped, overwritten with awkward numbers, cut off, doubled, or left out; mostly near the beginning or the end."""
    out = bytearray(data)
    for _ in range(chance.choice((1, 1, 2, 4, 12))):
        size = len(out)
        if not size:
            break
        edge = min(size, 160)
        near = chance.randrange(edge)
        at = chance.choice((near, near, size - 1 - near, chance.randrange(size)))
        kind = chance.randrange(7)
        if kind == 0:
            out[at] = chance.randrange(256)
        elif kind == 1:
            out[at] ^= 1 << chance.randrange(8)
        elif kind == 2:
            poison = chance.choice(_POISON)
            out[at : at + len(poison)] = poison
        elif kind == 3:
            del out[at:]
        elif kind == 4:
            out[at:at] = bytes(chance.randrange(1, 9))
        elif kind == 5:
            out[at:at] = out[at : at + chance.randrange(1, 64)]
        else:
            del out[at : at + chance.randrange(1, 20)]
    return bytes(out)


# families: a corpus, and what is done with each file


def pictures() -> tuple[Corpus, Use]:
    pixels = np.random.default_rng(1).integers(0, 255, (12, 20, 4), dtype=np.uint8)
    corpus: Corpus = {}
    for fmt in ("RGBA16F", "RGBA32F", "RGBA8", "BC1", "BC3", "BC5", "BC6H", "BC7", "RGBA16", "R8"):
        for kind in ("DDS", "KTX2"):
            encode = Encode(file=kind, format=fmt, levels=3)
            corpus[f"{fmt}.{kind.lower()}"] = imagefiles.write_texture(encode_levels(Picture(pixels), encode))
    kinds = ("RGBA PNG", "P PNG", "P GIF", "RGB BMP", "RGBA WEBP", "RGB JPEG", "RGBA TGA")
    for mode, kind in (one.split() for one in kinds):
        stream, image = io.BytesIO(), Image.fromarray(pixels).convert("RGB")
        image = image.quantize(16) if mode == "P" else image.convert(mode)
        image.save(stream, kind)
        corpus[f"{mode}.{kind.lower()}"] = stream.getvalue()
    # announced far larger than they are
    corpus["wide.gif"] = b"GIF89a" + struct.pack("<HH", 40000, 40000) + corpus["P.gif"][10:]
    corpus["wide.bmp"] = corpus["RGB.bmp"][:18] + struct.pack("<ii", 30000, 30000) + corpus["RGB.bmp"][26:]
    corpus["wide.png"] = corpus["RGBA.png"][:16] + struct.pack(">II", 30000, 30000) + corpus["RGBA.png"][24:]

    def use(name: str, data: bytes) -> None:
        spec_of(data, name)
        if imagefiles.recognises(data):
            imagefiles.read_header(data, name)
            imagefiles.read_small(data, 64, name)
            imagefiles.read_frames(data, name)

    return corpus, use


def sounds() -> tuple[Corpus, Use]:
    tone = np.repeat((np.sin(np.arange(6000) / 20) * 0.5).astype(np.float32)[:, None], 2, 1)
    corpus: Corpus = {}
    for kind, codec in (
        ("WAV", "PCM 16"), ("WAV", "PCM 24"), ("WAV", "float 32"), ("WAV", "IMA ADPCM"), ("WAV", "A-law"), ("FLAC", "PCM 16"),
        ("Ogg", "Vorbis"), ("Ogg", "Opus"), ("MP3", "MP3"),
    ):  # fmt: skip
        clip = Clip(tone, 48000 if codec == "Opus" else 44100, (100, 3000))
        corpus[f"{codec}.{kind.lower()}"] = write_clip(clip, kind, codec)
    import soundfile

    stream = io.BytesIO()
    soundfile.write(stream, tone, 22050, format="AIFF", subtype="PCM_16")
    corpus["PCM.aiff"] = stream.getvalue()
    for frames in (0, 1, 2):
        corpus[f"{frames}.wav"] = write_clip(
            Clip(tone[:frames] if frames else tone[:1], 44100), "WAV", "PCM 16"
        )
    corpus["0.wav"] = corpus["0.wav"][:40] + struct.pack("<I", 0)

    def use(name: str, data: bytes) -> None:
        sound.peek_info(data[:4096], len(data))
        sound.peek_info(data[:41], len(data))
        spec = spec_of(data, name)
        if sound.recognises(data):
            clip, info = read_clip(data, name)
            assert clip.frames == info.frames and np.isfinite(clip.samples).all(), spec

    return corpus, use


def archives(folder: Path) -> tuple[Corpus, Use]:
    contents = {
        "a/one.txt": b"first " * 40,
        "a/two.bin": bytes(range(256)),
        "b/three.dat": b"",
        "four.txt": b"stored",
    }
    corpus: Corpus = {
        "a.crate": makers.crate(contents), "a.casket": makers.casket(contents), "a.drawer": makers.drawer(contents),
        "a.satchel": makers.satchel(contents),
        "a.parcel": makers.parcel({"hall": (b"note", {"desk": [b"p", b"q"]}), "loft": (b"", {})}),
        "a.tlp": writers.tlp(contents), "a.tlc": writers.tlc(contents), "a.tlh": writers.tlh(contents),
        "a.tlk": writers.tlk(contents),
    }  # fmt: skip
    for method in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA):
        stream = io.BytesIO()
        with zipfile.ZipFile(stream, "w", method) as archive:
            for path, data in contents.items():
                archive.writestr(path, data)
        corpus[f"{method}.zip"] = stream.getvalue()
    bank, index, sums = writers.tls([contents["a/one.txt"], contents["four.txt"]])
    corpus["b.tls"] = bank

    def use(name: str, data: bytes) -> None:
        file = folder / name
        file.write_bytes(data)
        if name == "b.tls":
            chance = random.Random(len(data) + sum(data[:64]))
            file.write_bytes(bank)
            (folder / "b.tlx").write_bytes(mutated(index, chance))
            (folder / "b.sum").write_bytes(mutated(sums, chance) if chance.random() < 0.3 else sums)
        layout = None if name.endswith("zip") else find_layout(name.rpartition(".")[2])
        container = open_container(file, layout)
        try:
            for entry in list(container.entries())[:8]:
                try:
                    container.read(entry.path)
                    container.peek(entry.path, 16)
                except FurnelError:
                    continue
            container.rewrite(folder / f"out-{name}", Changes())
            for entry in list(container.entries())[:1]:
                container.rewrite(folder / f"out-{name}", Changes({entry.path: b"changed"}))
        finally:
            container.close()

    return corpus, use


def texts() -> tuple[Corpus, Use]:
    corpus = {
        "d.toml": b'a = 1\n[b]\nc = "x"\n[[d]]\ne = [1, 2]\n', "d.json": b'{"a": [1, {"b": null}], "c": "x"}',
        "d.xml": b'<a b="1"><c>t</c></a>', "d.ini": b"[a]\nb=1\n", "d.csv": b"a,b\n1,2\n",
        "e.json": b'{"bell": {"sounds": ["a.wav", "b.wav"], "vol": 0.5, "near": 1, "far": 9}, "gull": {"sounds": []}}',
        "f.json": b'{"bell": {"sounds": ["a.wav"], "vol": 1e999, "near": NaN, "far": ' + b"9" * 400 + b"}}",
        "g.json": b'{"bell": 3, "gull": {"sounds": [null, {}]}}',
    }  # fmt: skip
    corpus |= {
        "h.toml": b'# top\nwhen = 1979-05-27T07:32:00Z\n[a."b c"]\nd = {y = [1, [2]]}\n[[e]]\nid = "k"\n[[e]]\nid = "l"\n',
        "h.json": b'{"list": [{"id": "k", "at": [1, 2]}, {"id": "l", "at": [[3], [4]]}], "\\u00e9": -1.5e3, "t": true}',
        "h.xml": b'<?xml version="1.0" encoding="ISO-8859-1"?>\n<a><!-- n --><b id="k">t<c/>u</b><b><![CDATA[<x>]]></b></a>',
        "h.ini": b"; top\n[a]\nb = 1 ; why\nc : x\n\n[d e]\nf=\n", "h.tsv": b"id\ta\nk\t1\nl\t2\n",
        "h.csv": b'sep=;\n# note\nid;"a;b"\nk;"1\n2"\nl;3\n', "h.properties": b"a.b=1\n# n\nc:\\u0041\n",
    }  # fmt: skip
    keys = EventKeys("sounds", "vol", "near", "far")
    values: list[Any] = [1, -2.5, "x", "a; b # c\n]]>", True, [1, "y"], {"k": [1]}, ""]

    def use(name: str, data: bytes) -> None:
        spec_of(data, name)
        if name[0] in "efg":
            found = read_events(data, keys, name)
            with_events(data, keys, [*found.values()], name)
            return
        chance, document = random.Random(data), document_of(data, name)
        places = [spot.address for spot in spots(document)]
        for _ in range(3):
            address = address_text(chance.choice(places))
            told: Any = chance.choice(
                (
                    {"do": "set", "to": chance.choice(values)},
                    {"do": "drop"},
                    {"do": "add", "key": "n", "to": 3},
                )
            )
            with contextlib.suppress(FurnelError, ValidationError):
                change = Change.model_validate({"at": address, **told})
                changed = applied(document, [change])
                merged(document, changed, document)
                difference(document, changed)

    return corpus, use


def written(folder: Path) -> tuple[Corpus, Use]:
    """What people write: a project, a profile, layouts; words and numbers changed for others."""
    from importlib import resources

    shipped = resources.files("furnel")
    corpus = {
        "project.toml": b"""furnel = 1
[mod]
id = "m"
name = "M"
version = "1.0"
[game]
profile = "tarnlight"
folder = "../game"
[[swap]]
original = "art/a.dds"
source = "s.png"
insist = ["size"]
encode = {file = "DDS", format = "BC3", levels = 4, notes = {header = "legacy"}}
steps = [{do = "size", width = 8, height = 8, how = "fill"}, {do = "crop", left = 0, top = 0, width = 4, height = 4}]
[[event]]
name = "bell"
sounds = ["a.wav"]
volume = 0.5
""",
        "outs.toml": b"""furnel-load-out = 1
name = "Evening"
game = "tarnlight"
[[mods]]
id = "m"
version = "1.0"
on = true
""",
        PATCHES: b"""furnel-patches = 1
[[patch]]
file = "rules/boats.toml"
sha256 = "00"
changes = [{do = "set", at = "a/b", to = 3}, {do = "add", at = "a", key = "n", to = [1]}]
""",
    }
    for entry in (shipped / "games" / "profiles").iterdir():
        if entry.name.endswith(".toml"):
            corpus[f"profile-{entry.name}"] = entry.read_bytes()
    for entry in (shipped / "containers" / "layouts").iterdir():
        corpus[f"layout-{entry.name}"] = entry.read_bytes()
    words = [
        "-3", "0", "99999999999999999999", '"../x"', '"/etc"', '""', '"red"', "true", "[]", "{}", "[0, -3]", "1.5", '"%n{x}"',
        "nan", '"**/.."', '"("', '"[a"', '"a\\u0000b"', '["x", 3]', "[[1]]",
    ]  # fmt: skip

    def use(name: str, data: bytes) -> None:
        import re

        chance = random.Random(data)
        text = corpus[name].decode()
        for _ in range(chance.choice((1, 1, 2, 3))):
            values = list(re.finditer(r'= (".*?"|-?[\d.]+|true|false|\[.*?\]|\{.*?\})', text))
            spot = chance.choice(values)
            text = text[: spot.start(1)] + chance.choice(words) + text[spot.end(1) :]
        if chance.random() < 0.3:
            lines = text.splitlines()
            del lines[chance.randrange(len(lines))]
            text = "\n".join(lines)
        file = folder / name
        file.write_text(text)
        if name.startswith("project"):
            load_project(file)
        elif name == "outs.toml":
            read_load_out(file)
        elif name == PATCHES:
            read_patches(folder)
        elif name.startswith("profile"):
            parse_profile(text, file)
        else:
            layout = open_layout(file)
            target = folder / "some.bin"
            target.write_bytes(data * 3)
            with contextlib.suppress(FurnelError):
                open_container(target, layout).close()

    return corpus, use


def mods() -> tuple[Corpus, Use]:
    """What games keep of their mods, in all forms: read, and written anew."""
    facts, order = (
        dict.fromkeys(FACTS, "a \u00e9 = ; # <b>"),
        [("moss", True), ("reed", False), ("two words", True)],
    )
    abouts = {
        form: AboutFile.model_validate({"form": form, "keys": {"name": "m.name", "id": "m.id"}})
        for form in ("toml", "json", "ini", "xml", "lines")
    }
    orders = {form: OrderFile.model_validate({"form": form}) for form in abouts}
    corpus = {f"about.{form}": rule.write(facts).encode() for form, rule in abouts.items()}
    for form, rule in orders.items():
        with contextlib.suppress(FurnelError):  # a form that cannot say it
            corpus[f"order.{form}"] = rule.write("", order).encode()

    def use(name: str, data: bytes) -> None:
        what, form = name.split(".")
        text = data.decode("utf-8", "replace")
        if what == "about":
            abouts[form].read(text)
            return
        again = orders[form].write(text, order, name)
        assert orders[form].read(again, name) == order

    return corpus, use


def families(folder: Path) -> dict[str, Callable[[], tuple[Corpus, Use]]]:
    return {
        "pictures": pictures, "sounds": sounds, "archives": lambda: archives(folder), "texts": texts,
        "written": lambda: written(folder), "mods": mods,
    }  # fmt: skip


def run(family: str, seconds: float, seed: int, folder: Path) -> dict[str, object]:
    folder.mkdir(parents=True, exist_ok=True)
    corpus, use = families(folder)[family]()
    for name, data in corpus.items():  # whole ones first: everything is loaded then
        with contextlib.suppress(FurnelError):
            use(name, data)
    size = int(Path("/proc/self/statm").read_text().split()[0]) * resource.getpagesize()
    resource.setrlimit(resource.RLIMIT_AS, (size + MOST_BYTES,) * 2)
    warnings.simplefilter("error", RuntimeWarning)
    chance, wrong, count = random.Random(seed), dict[str, str](), 0
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        name = chance.choice(list(corpus))
        data = mutated(corpus[name], chance)
        count += 1
        begun = time.process_time()
        try:
            use(name, data)
        except FurnelError:
            pass
        except BaseException as error:
            ours = [part for part in traceback.extract_tb(error.__traceback__) if "furnel" in part.filename]
            place = f"{Path(ours[-1].filename).name}:{ours[-1].lineno}" if ours else "?"
            wrong.setdefault(f"{name} {type(error).__name__} {place}", str(error)[:120])
        if (took := time.process_time() - begun) > MOST_S:
            wrong.setdefault(f"{name} slow", f"{took:.1f} s")
    return {"files": count, "wrong": wrong}


if __name__ == "__main__":
    what, length, number, where = sys.argv[1:]
    quiet = os.open(os.devnull, os.O_WRONLY)
    os.dup2(quiet, 2)  # libmpg123 talks
    print(json.dumps(run(what, float(length), int(number), Path(where))))
