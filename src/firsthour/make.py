"""The demo: the stand-in game, a half-done mod for it, and a second mod that is in its way."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from pathlib import Path

import numpy as np
import soundfile
from PIL import Image

from firsthour.strangers import make_strangers
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.events import fill_event
from furnel.mods.project import About, EventUse, Project, StepUse
from furnel.mods.workspace import Workspace, create_project, open_workspace
from tarnlight import sounds
from tarnlight.art import hud, paint, sprites, surfaces
from tarnlight.art.ensigns import ensign
from tarnlight.forge import forge

MOD, OTHER = "Northern Lights", "Herring Day"


def make_game(folder: Path) -> None:
    """The game's install, made once."""
    if not (folder / "tarnlight.toml").is_file():
        forge(folder)


def make_demo(folder: Path, say: Callable[[str], object] = lambda said: None) -> Path:
    """Game, mods and sources below `folder`; the project file of the half-done mod. What was begun is gone on with."""
    game = folder / "game"
    if not (game / "tarnlight.toml").is_file():
        say("Forging the game")
        fresh = folder / "game.part"
        shutil.rmtree(fresh, ignore_errors=True)
        fresh.mkdir(parents=True)  # what is in the way is told before anything is made
        make_game(fresh)
        fresh.rename(game)
    mod, making = folder / "northern-lights", folder / ".making"
    if making.exists() or not (mod / "furnel.toml").is_file():
        if making.exists():  # what was not finished is no mod of anybody's
            for begun in (mod, folder / "herring-day"):
                shutil.rmtree(begun, ignore_errors=True)
        making.touch()
        say("Making a mod that is in the way")
        _herring_day(folder / "herring-day", game)
        say("Making a mod that is half done")
        _northern_lights(mod, game)
        making.unlink()
    return mod / "furnel.toml"


def make_sources(folder: Path) -> None:
    """What a modder brings: pictures of the wrong size, a sheet on green, recordings at the wrong rate."""
    make_strangers(folder)
    rng = np.random.default_rng(20)
    Image.fromarray(_dusk_planks(rng, 900, 700)).convert("RGB").save(folder / "dusk_paint.jpg", quality=93)
    coat = {**sprites.OTTER, "back": "26707f", "side": "3a98a2", "dark": "174651"}
    sheet = Image.fromarray(sprites.sheet(sprites.otter_walk(coat), 6)).resize(
        (480, 48), Image.Resampling.NEAREST
    )
    ground = Image.new("RGBA", sheet.size, (0, 200, 80, 255))
    ground.alpha_composite(sheet)
    ground.convert("RGB").save(folder / "otter_teal.png")
    soundfile.write(folder / "church_bell.mp3", _stereo(_bell(44100), 44100), 44100)
    soundfile.write(folder / "night_song.wav", _song(), 44100, subtype="PCM_24")
    cloth = surfaces.cloth(rng, 800, 800, "1d4a52", _aurora_mask(800, 800), "9fe8c8")
    Image.fromarray(cloth).save(folder / "sail_aurora.png")
    _weave(rng, 160).save(folder / "weave_red.png")
    Image.fromarray(_sign(rng, 1600, 1200)).save(folder / "phone_photo.jpg", quality=90)
    Image.fromarray(hud.gauge_level(rng, 256)).save(folder / "oil_copy.png")
    for size in ("large", "medium", "small"):
        Image.fromarray(ensign("kettle", size)).resize((240, 160), Image.Resampling.LANCZOS).save(
            folder / f"ensign_{size}.png"
        )
    Image.fromarray(surfaces.glow(300, "6fe0b0")).save(folder / "glow_green.png")
    Image.fromarray(surfaces.rock(rng, 512, ("3a4438", "77806a", "b7bda0"), 0.6)).save(
        folder / "moss_bright.png"
    )
    for number, take in enumerate(_bell_takes(44100)):
        soundfile.write(folder / f"bell_take_{number + 1}.wav", take, 44100, subtype="PCM_16")
    soundfile.write(folder / "evening_song.flac", _evening_song(), 44100, subtype="PCM_16")
    soundfile.write(folder / "gull_loud.wav", 0.98 * _gull(48000), 48000, subtype="PCM_16")


def _northern_lights(folder: Path, game: Path) -> None:
    make_sources(folder / "sources")
    file = create_project(folder, MOD, game, "Mira Solheim")
    space = open_workspace(file)
    sources = folder / "sources"
    fitted = {
        "art/sails/sail_heron.dds": "sail_aurora.png", "cast/otter_walk.png": "otter_teal.png",
        "music/slow_water.ogg": "night_song.wav", "ensigns/large/aldvik.tga": "ensign_large.png",
        "ensigns/medium/aldvik.tga": "ensign_medium.png", "ensigns/small/aldvik.tga": "ensign_small.png",
        "art/lamps/glow_warm.dds": "glow_green.png",
        "art/rock/granite_moss.dds": "moss_bright.png", "bank0/000.wav": "church_bell.mp3",
    }  # fmt: skip
    project = space.project
    for original, source in fitted.items():
        swap = space.fitted(space.new_swap(original, sources / source))
        project = project.with_swap(swap.model_copy(update={"credit": "Own work, Mira Solheim"}))
    bell = project.swap_for("bank0/000.wav")
    assert bell is not None and bell.encode is not None
    quiet = tuple(use for use in bell.steps if use.do != "loudness")
    project = project.with_swap(
        bell.model_copy(update={"steps": (*quiet, StepUse(do="loudness", values={"target": -14.0}))})
    )
    project = _made_from_originals(space, project, sources)
    space = space.with_project(project)
    project = fill_event(space, "bell_far", [sources / f"bell_take_{number}.wav" for number in range(1, 6)])
    project = project.with_event(EventUse(name="bell_far", sounds=project.events[0].sounds, silent_at=120))
    project = project.with_swap(
        space.fitted(space.new_swap("music/reel_night.ogg", sources / "evening_song.flac"))
    )
    rock = project.swap_for("art/rock/granite_moss.dds")
    assert rock is not None
    project = project.with_swap(rock.model_copy(update={"made_for": "0" * 32}))
    project = project.with_swap(space.new_swap("bank0/012.wav", sources / "gull_loud.wav"))
    list_file = sources / "playlist.json"
    text = space.catalogue.read(space.catalogue.get("rules/playlist.json")).decode()
    list_file.write_text(text.replace('"fog"', '"lantern_waltz"'))
    project = project.with_swap(space.new_swap("rules/playlist.json", list_file))
    space = space.save(
        project.model_copy(
            update={"mod": _about(project, "Green light over the tarn, and an otter to match", "look")}
        )
    )
    build(space)
    space.save(
        space.project.with_swap(space.new_swap("art/hulls/hull_otter.dds", sources / "dusk_paint.jpg"))
    )
    space.close()


def _made_from_originals(space: Workspace, project: Project, sources: Path) -> Project:
    """Swaps whose steps build on the original: a hue turned, a pattern under the folds, a photo on a plank."""
    for original, source, step in (
        ("hud/oil_level.dds", "oil_copy.png", StepUse(do="hue", values={"turn": 118.0, "saturation": 10.0})),
        (
            "art/sails/sail_night.dds", "weave_red.png",
            StepUse(do="pattern", values={"scale": 60.0, "turn": 18.0, "lines": 130.0}),
        ),
        (
            "art/hulls/hull_heron.dds", "phone_photo.jpg",
            StepUse(
                do="place",
                values={"left": 150, "top": 90, "width": 200, "height": 150, "stretch": 1.3, "feather": 12.0},
            ),
        ),
    ):  # fmt: skip
        swap = space.fitted(space.new_swap(original, sources / source))
        swap = swap.model_copy(update={"steps": (step,), "credit": "Own work, Mira Solheim"})
        project = project.with_swap(swap)
    return project


def _herring_day(folder: Path, game: Path) -> None:
    (folder / "sources").mkdir(parents=True)
    rng = np.random.default_rng(5)
    sail = surfaces.cloth(rng, 512, 512, "b8863b", surfaces.fish(512, 512), "2b2320")
    Image.fromarray(sail).save(folder / "sources" / "sail_fish.png")
    space = open_workspace(create_project(folder, OTHER, game, "Jon Varde"))
    project = space.project.with_swap(
        space.fitted(space.new_swap("art/sails/sail_heron.dds", folder / "sources" / "sail_fish.png"))
    )
    list_file = folder / "sources" / "playlist.json"
    list_file.write_bytes(
        space.catalogue.read(space.catalogue.get("rules/playlist.json")).replace(b'"slow_water"', b'"fog"')
    )
    project = project.with_swap(space.new_swap("rules/playlist.json", list_file))
    space = space.save(project.model_copy(update={"mod": _about(project, "Fish on every sail", "look")}))
    _install(space)
    space.close()


def _install(space: Workspace) -> None:
    built = build(space)
    install_mod(space.catalogue.install, space.project.mod.id, built.folder)


def _about(project: Project, summary: str, category: str) -> About:
    return project.mod.model_copy(update={"summary": summary, "category": category, "version": "0.3"})


def _dusk_planks(rng: np.random.Generator, width: int, height: int) -> np.ndarray:
    wood = surfaces.planks(rng, width, height, 7, ("2a3a40", "3f5d62", "6b8a86"), paint="1c5560", wear=0.25)
    colour: paint.Floats = wood[..., :3].astype(np.float32) / 255
    glow = _aurora_mask(width, height)
    colour = paint.mix(colour, colour * 0.5 + paint.rgb("5fe0b0") * 0.6, glow * 0.75)
    bird = paint.blurred(surfaces.heron(height // 2, height // 2), 1)
    at_y, at_x = height // 4, width // 2 + 20
    part = colour[at_y : at_y + bird.shape[0], at_x : at_x + bird.shape[1]]
    part[:] = paint.mix(part, paint.rgb("f0e6cc") * (0.7 + 0.5 * part), bird)
    return paint.rgba(colour)


def _sign(rng: np.random.Generator, width: int, height: int) -> np.ndarray:
    """A snapshot of a painted sign, brighter on one side, a little soft."""
    board = surfaces.planks(rng, width, height, 3, ("6d5637", "b4925c", "e2c992"), nails=False)[..., :3] / 255
    fish = paint.blurred(surfaces.fish(height, height), 3)
    part = board[:, (width - height) // 2 : (width + height) // 2]
    part[:] = paint.mix(part.astype(np.float32), paint.rgb("8c2f2b") * (0.6 + 0.5 * part), fish * 0.95)
    light = np.linspace(1.2, 0.8, width)[None, :, None]
    return np.asarray(np.clip(board * light, 0, 1) * 255, np.uint8)


def _weave(rng: np.random.Generator, size: int) -> Image.Image:
    """A checked cloth that repeats."""
    y, x = np.mgrid[0:size, 0:size] / size
    across = np.where((x * 2) % 1 < 0.55, 0.0, 1.0)
    down = np.where((y * 2) % 1 < 0.55, 0.0, 1.0)
    threads = 0.9 + 0.1 * np.sin((x + y) * np.pi * 80)
    first, second = paint.rgb("7d2a26"), paint.rgb("2c4a4f")
    colour = first + (second - first) * ((across + down) / 2)[..., None]
    stripe = (np.abs((x * 2) % 1 - 0.27) < 0.025) | (np.abs((y * 2) % 1 - 0.27) < 0.025)
    colour = np.where(stripe[..., None], paint.rgb("e3c98d"), colour) * threads[..., None]
    colour = colour * (0.94 + 0.12 * paint.noise(rng, size, size, 8, 8, 3))[..., None]
    return Image.fromarray(paint.rgba(colour.astype(np.float32)))


def _aurora_mask(width: int, height: int) -> np.ndarray:
    x, y = paint.grid(width, height)
    out = np.zeros((height, width), np.float32)
    for place, sway, strength in ((0.28, 0.09, 1.0), (0.46, 0.07, 0.7), (0.62, 0.05, 0.5)):
        line = place + sway * np.sin(x * 7 + place * 9) + 0.03 * np.sin(x * 19)
        rise = line - y
        out += (
            strength
            * np.where(rise > 0, np.exp(-rise * 9), np.exp(rise * 40))
            * (0.6 + 0.4 * np.sin(x * 60 + np.sin(x * 11) * 4))
        )
    return np.clip(out, 0, 1).astype(np.float32)


def _bell(rate: int) -> np.ndarray:
    t = np.arange(int(2.8 * rate)) / rate
    wave = sum(
        a * np.exp(-t * d) * np.sin(2 * np.pi * f * t)
        for f, a, d in ((587, 1, 1.1), (293, 0.5, 0.8), (705, 0.5, 1.8), (1175, 0.5, 2.6), (1760, 0.2, 4))
    )
    return np.asarray(np.asarray(wave) / np.abs(wave).max() * 0.5)


def _stereo(wave: np.ndarray, rate: int) -> np.ndarray:
    late = np.roll(wave, rate // 900)
    return np.asarray(np.stack([wave, late * 0.9], axis=1))


def _gull(rate: int) -> np.ndarray:
    wave = sounds.event_sound("gull", 7, 3)
    return np.asarray(np.tanh(wave / np.abs(wave).max() * 3))


def _bell_takes(rate: int) -> list[np.ndarray]:
    """Five strikes of a small bell, recorded with a phone: each begins late, at another level, over a hum."""
    out = []
    for number, (late_s, level) in enumerate(
        ((0.21, 0.30), (0.34, 0.12), (0.17, 0.22), (0.29, 0.08), (0.25, 0.17))
    ):
        t = np.arange(int(2.1 * rate)) / rate
        base = 466 * (1 + 0.004 * number)
        parts = ((1, 1.0, 1.6), (0.5, 0.4, 1.0), (1.2, 0.5, 2.2), (2.02, 0.45, 3.2), (2.97, 0.2, 5 + number))
        wave = sum(a * np.exp(-t * d) * np.sin(2 * np.pi * base * f * t + number) for f, a, d in parts)
        whole = np.concatenate(
            [np.zeros(int(late_s * rate)), np.asarray(wave) * np.minimum(t * 700, 1) * level]
        )
        hum = np.sin(2 * np.pi * 100 * np.arange(len(whole)) / rate)
        out.append(whole + 0.0004 * hum + 0.0002 * np.random.default_rng(number).standard_normal(len(whole)))
    return out


def _evening_song() -> np.ndarray:
    """A waltz of three minutes and seventeen seconds: two seconds of nothing, then thirteen verses."""
    verses = [sounds.tune("lantern_waltz", 30 + verse % 4)[0] for verse in range(4)]
    whole = np.concatenate([np.zeros((2 * 44100, 2)), *(verses[verse % 4] for verse in range(13))])
    return whole[: 197 * 44100] * 0.5


def _song() -> np.ndarray:
    wave, _, _ = sounds.tune("lantern_waltz", 11)
    return wave[: int(13.3 * 44100)] * 0.4
