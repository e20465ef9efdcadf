"""Killing something at every durable step: run as a program of its own, which forks for each kill.

`python -m tests.killing STORIES FOLDER GAME SOURCES` says in JSON, a line for each story (with commas between them), at
how many places it was killed, and what was wrong after.
"""

from __future__ import annotations

import json
import os
import shutil
import signal
import sys
import zipfile
from collections.abc import Callable
from pathlib import Path

from furnel.pending import finish_interrupted
from tests.conftest import digest

_BOAT = (
    b'[otter]\nname = "Otter"\nhull = "art/hulls/hull_otter.dds"\nsail = "art/sails/sail_heron.dds"\n'
    b"length_m = %s\nspeed = %s\n"
)
EVENTS = ("rename", "replace", "link", "unlink", "rmdir", "mkdir")


def walk(
    prepare: Callable[[], None], act: Callable[[], object], after: Callable[[], str]
) -> tuple[int, list[str]]:
    """Kill `act` before its first, second, … durable step until it gets through; what `after` found wrong, by place."""
    wrong: list[str] = []
    for place in range(2000):
        prepare()
        child = os.fork()
        if child == 0:
            _kill_before(place)
            try:
                act()
            except BaseException as error:
                print(f"the action itself failed: {error!r}", file=sys.stderr)
                os._exit(9)
            os._exit(0)
        status = os.waitpid(child, 0)[1]
        if os.WIFEXITED(status) and os.WEXITSTATUS(status):
            return place, [*wrong, f"{place}: ended by itself with {os.WEXITSTATUS(status)}"]
        finish_interrupted()  # as every start does
        found = after()
        if found:
            wrong.append(f"{place}: {found}")
        if os.WIFEXITED(status):
            return place, wrong
    raise AssertionError("it never gets through")


def _kill_before(place: int) -> None:
    count = [0]

    def watched(real: Callable[..., object]) -> Callable[..., object]:
        def step(*args: object, **options: object) -> object:
            if count[0] == place:
                os.kill(os.getpid(), signal.SIGKILL)
            count[0] += 1
            return real(*args, **options)

        return step

    steps: dict[str, Callable[..., object]] = {name: watched(getattr(os, name)) for name in EVENTS}
    for name, step in {**steps, "fsync": lambda _: None}.items():  # the program is killed, not the machine
        setattr(os, name, step)


def hidden(*folders: Path) -> str:
    """What was left lying about: names that begin with a dot, or end in .part."""
    rest = [
        str(file)
        for folder in folders
        for file in (folder.rglob("*") if folder.is_dir() else ())
        if (file.name.startswith(".") and file.name != ".gitignore") or file.name.endswith(".part")
    ]
    return f"left over: {rest}" if rest else ""


def one_of(name: str, found: str, *allowed: str) -> str:
    return "" if found in allowed else f"{name} is neither old nor new"


def renewed(copy: Path, model: Path) -> None:
    shutil.rmtree(copy, ignore_errors=True)
    if model.is_dir():
        shutil.copytree(model, copy)


class Stories:
    """What is killed. Each starts from a mod of three small swaps beside a game of its own."""

    def __init__(self, folder: Path, game: Path, sources: Path) -> None:
        from furnel.mods.workspace import create_project, open_workspace

        self.folder, self.sources = folder, sources
        folder.mkdir(parents=True, exist_ok=True)
        self.game, self.mod = folder / "game", folder / "mod"
        shutil.copytree(game, self.game)
        os.environ["FURNEL_STATE"], os.environ["FURNEL_CACHE"] = str(folder / "state"), str(folder / "cache")
        space = open_workspace(create_project(self.mod, "Evening Post", self.game))
        project = space.project
        texts = folder / "playlist.json"
        texts.write_bytes(space.catalogue.read(space.catalogue.get("rules/playlist.json")))
        for original, source in (
            ("ensigns/small/kettle.tga", sources / "ensign_small.png"), ("bank0/012.wav", sources / "gull_loud.wav"),
            ("rules/playlist.json", texts),
        ):  # fmt: skip
            project = project.with_swap(space.fitted(space.new_swap(original, source)))
        space.save(project).close()

    def run(self, name: str) -> tuple[int, list[str]]:
        """One story; the folder is as it leaves it afterwards."""
        from furnel.mods.workspace import open_workspace

        self.space = open_workspace(self.mod)
        project = self.space.project
        about = project.mod.model_copy(update={"version": "0.2"})
        small = project.without_swap("bank0/012.wav").model_copy(update={"mod": about})
        self.other = self.space.with_project(small)
        return getattr(self, name.replace("-", "_"))()  # type: ignore[no-any-return]

    # builds

    def build_new(self) -> tuple[int, list[str]]:
        return self._build(None)

    def build_update(self) -> tuple[int, list[str]]:
        return self._build(self.space)

    def _build(self, before: object) -> tuple[int, list[str]]:
        from furnel.mods.build import build, last_build

        builds, model = self.mod / "build", self.folder / "model"
        build(self.other)
        new = digest(self.other.build_folder)
        shutil.rmtree(builds)
        if before is not None:
            build(self.space)
            shutil.copytree(builds, model)
        old = digest(self.space.build_folder) if before is not None else ""

        def after() -> str:
            found = last_build(self.other)
            state = digest(found.folder) if found is not None else ""
            here = self.other.build_folder
            whole = digest(here) if here.is_dir() else ""
            said = one_of("what is said to be built", state, "", old, new)
            return one_of("the build", whole, old, new) or said or hidden(builds)

        return walk(lambda: renewed(builds, model), lambda: build(self.other), after)

    # the game

    def install_new(self) -> tuple[int, list[str]]:
        return self._install()

    def install_without_a_mods_folder(self) -> tuple[int, list[str]]:
        shutil.rmtree(self.game / "mods")
        return self._install()

    def install_over_a_handmade_folder(self) -> tuple[int, list[str]]:
        (self.game / "mods/evening-post").mkdir(parents=True)
        (self.game / "mods/evening-post/mod.toml").write_text("by hand")
        return self._install()

    def update(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod

        install_mod(self.space.catalogue.install, "evening-post", build(self.space).folder)
        return self._install()

    def _install(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod

        built, install = build(self.other).folder, self.space.catalogue.install
        return self._in_game(lambda: install_mod(install, "evening-post", built, over=True))

    def remove(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod, remove_mod

        (self.game / "mods/evening-post").mkdir(parents=True)
        (self.game / "mods/evening-post/mod.toml").write_text("by hand")
        install = self.space.catalogue.install
        install_mod(install, "evening-post", build(self.space).folder, over=True)
        return self._in_game(lambda: remove_mod(install, "evening-post"))

    def bridge(self) -> tuple[int, list[str]]:
        from furnel.mods.bridge import make_bridge

        self._two_mods(b"4.5")
        return self._in_game(lambda: make_bridge(self.space.catalogue.install))

    def bridge_again(self) -> tuple[int, list[str]]:
        from furnel.mods.bridge import make_bridge

        self._two_mods(b"4.5")
        make_bridge(self.space.catalogue.install)
        self._two_mods(b"5.5")
        return self._in_game(lambda: make_bridge(self.space.catalogue.install))

    def get(self) -> tuple[int, list[str]]:
        """A stranger's ZIP, in the place of an older one."""
        from furnel.mods.getting import get_mod, looked_into

        install, package = self.space.catalogue.install, self.folder / "fast.zip"
        for speed in (b"4.5", b"6.5"):
            with zipfile.ZipFile(package, "w") as packed:
                about = f'id = "fast"\nname = "Fast"\nversion = "{speed.decode()}"\ngame-version = "1.2"\n'
                packed.writestr("fast/mod.toml", about)
                packed.writestr("fast/rules/boats.toml", _BOAT % (b"7.4", speed))
            if speed == b"4.5":
                with looked_into(install, package) as found:
                    get_mod(install, found)

        def act() -> None:
            with looked_into(install, package) as found:
                get_mod(install, found)

        return self._in_game(act)

    def load_out(self) -> tuple[int, list[str]]:
        from furnel.mods.loadouts import load_out_now, use_load_out

        install = self.space.catalogue.install
        self._two_mods(b"4.5")
        wanted = load_out_now(install, "Both")
        (self.game / "mods/order.toml").write_text('[[mod]]\nid = "long"\non = true\n')
        return self._in_game(lambda: use_load_out(install, wanted))

    def _two_mods(self, speed: bytes) -> None:
        """Mods that change two values of one record, each of which hides the other's."""
        from furnel.games import read_order, write_order

        order = self.game / "mods" / "order.toml"
        for mod, record in (("fast", (b"7.4", speed)), ("long", (b"9.5", b"3.2"))):
            home = self.game / "mods" / mod
            (home / "rules").mkdir(parents=True, exist_ok=True)
            (home / "mod.toml").write_text(
                f'id = "{mod}"\nname = "{mod}"\nversion = "1"\ngame-version = "1.2"\n'
            )
            (home / "rules/boats.toml").write_bytes(_BOAT % record)
        if not read_order(order):
            write_order(order, [("fast", True), ("long", True)])

    def install_in_place(self) -> tuple[int, list[str]]:
        self._go_in_place()
        return self._in_place()

    def update_in_place(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod

        self._go_in_place()
        install_mod(self.space.catalogue.install, "evening-post", build(self.space).folder)
        return self._in_place()

    def remove_in_place(self) -> tuple[int, list[str]]:
        self._go_in_place()
        return self._leave_in_place()

    def _leave_in_place(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod, remove_mod

        install = self.space.catalogue.install
        install_mod(install, "evening-post", build(self.space).folder)
        self._keep_only("bank0")
        return self._in_game(lambda: remove_mod(install, "evening-post"), self.game / "data")

    def share_in_place(self) -> tuple[int, list[str]]:
        self._share()
        return self._in_place()

    def leave_what_is_shared(self) -> tuple[int, list[str]]:
        self._share()
        return self._leave_in_place()

    def _share(self) -> None:
        """Another mod that changes another entry of the same archive is in the game already."""
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod
        from furnel.mods.workspace import create_project, open_workspace

        self._go_in_place()
        install = self.space.catalogue.install
        second = open_workspace(create_project(self.folder / "second", "Second Post", self.game))
        second.catalogue.install.profile = install.profile
        swap = second.fitted(second.new_swap("bank0/000.wav", self.sources / "gull_loud.wav"))
        second = second.with_project(second.project.with_swap(swap))
        install_mod(install, "second-post", build(second).folder)
        self.other = self.space

    def _go_in_place(self) -> None:
        install = self.space.catalogue.install
        rule = install.profile.mods.model_copy(update={"goes": "in-place"})
        install.profile = install.profile.model_copy(update={"mods": rule})
        less = self.space.project.without_swap("rules/playlist.json")
        self.space = self.space.with_project(less)
        self.other = self.space.with_project(less.without_swap("bank0/012.wav"))

    def _keep_only(self, *names: str) -> None:
        """What nothing is done to would only be copied for every kill."""
        for file in (self.game / "data").iterdir():
            if file.is_file() and file.stem not in names:
                file.unlink()

    def _in_place(self) -> tuple[int, list[str]]:
        from furnel.mods.build import build
        from furnel.mods.deploy import install_mod

        built, install = build(self.other).folder, self.space.catalogue.install
        self._keep_only("bank0")
        return self._in_game(lambda: install_mod(install, "evening-post", built), self.game / "data")

    def _in_game(self, act: Callable[[], object], mods: Path | None = None) -> tuple[int, list[str]]:
        """Kill; the next start then finds the mods folder old or new, and a second try comes to the end."""
        from furnel.mods.deploy import recover

        mods, state = mods or self.game / "mods", self.folder / "state"
        install, model, kept = (
            self.space.catalogue.install,
            self.folder / "mods-model",
            self.folder / "state-model",
        )
        renewed(model, mods)
        renewed(kept, state)
        had = mods.is_dir()

        def prepare() -> None:
            renewed(mods, model)
            renewed(state, kept)

        tries = [0]
        old = digest(mods) if had else ""
        child = os.fork()
        if child == 0:
            act()
            os._exit(0)
        os.waitpid(child, 0)
        new = digest(mods)

        def after() -> str:
            recover(install)
            found = digest(mods) if mods.is_dir() else ""
            wrong = one_of("the mods folder", found, old, new) or hidden(mods)
            tries[0] += 1
            if not wrong and found != new and tries[0] % 4 == 1:  # now and then, it takes time
                child = os.fork()
                if child == 0:
                    act()
                    os._exit(0)
                os.waitpid(child, 0)
                wrong = one_of("the mods folder after a second try", digest(mods), new)
            return wrong

        return walk(prepare, act, after)

    # files

    def save(self) -> tuple[int, list[str]]:
        from furnel.mods.edit import Edit
        from furnel.mods.history import history_file, note_edit, read_history
        from furnel.mods.project import load_project, save_project

        before, after = self.space.project, self.other.project
        history = history_file(self.space.file)

        def prepare() -> None:
            history.unlink(missing_ok=True)
            save_project(self.space.file, before)

        def act() -> None:
            note_edit(history, Edit.between("Change the version", before, after))
            save_project(self.space.file, after)

        def check() -> str:
            project = load_project(self.space.file)
            past = read_history(history, project)
            if project not in (before, after):
                return "the project is neither old nor new"
            if project == after and (past.last is None or past.last.onto(project, forward=False) != before):
                return "what was saved cannot be taken back"
            return hidden(self.mod, history.parent)

        return walk(prepare, act, check)

    def _archive(
        self, name: str, layout: str, act: Callable[[Path], object], files: list[str]
    ) -> tuple[int, list[str]]:
        out = self.folder / "out"

        def state() -> str:
            return digest(out) if out.is_dir() else ""

        def prepare() -> None:
            shutil.rmtree(out, ignore_errors=True)
            out.mkdir()
            for file in files:
                shutil.copy(self.game / "data" / file, out / file)

        prepare()
        old = state()
        child = os.fork()
        if child == 0:
            act(out / name)
            os._exit(0)
        os.waitpid(child, 0)
        new = state()
        assert new != old

        def after() -> str:
            pending = self.folder / "state/pending"
            rest = [file.name for file in pending.iterdir()] if pending.is_dir() else []
            return (
                one_of("the archive", state(), old, new) or hidden(out) or ("journals left" if rest else "")
            )

        return walk(prepare, lambda: act(out / name), after)

    def repack_with_side_files(self) -> tuple[int, list[str]]:
        from furnel.containers import Changes, find_layout, open_container

        def act(target: Path) -> None:
            opened = open_container(target, find_layout("tls"))
            opened.rewrite(target, Changes({"000.wav": opened.read("001.wav")}))

        return self._archive("bank0.tls", "tls", act, ["bank0.tls", "bank0.tlx", "bank0.sum"])

    def repack(self) -> tuple[int, list[str]]:
        from furnel.containers import Changes, find_layout, open_container

        def act(target: Path) -> None:
            opened = open_container(target, find_layout("tlp"))
            first = opened.entries()[0].path
            opened.rewrite(target, Changes({first: b"short"}))

        return self._archive("hud.tlp", "tlp", act, ["hud.tlp"])

    def pack(self) -> tuple[int, list[str]]:
        from furnel.containers import find_layout, pack_folder

        folder = self.folder / "loose"
        folder.mkdir()
        for number in range(3):
            (folder / f"{number:03}.wav").write_bytes(bytes(50 + number))
        return self._archive(
            "bank1.tls", "tls", lambda target: pack_folder(folder, find_layout("tls"), target), []
        )

    def take_out(self) -> tuple[int, list[str]]:
        from furnel.catalogue import take_out

        out, catalogue = self.folder / "taken", self.space.catalogue
        paths = ["bank0/012.wav", "rules/boats.toml", "ensigns/small/kettle.tga"]

        def act() -> None:
            take_out(paths, lambda path: catalogue.read(catalogue.get(path)), out)

        def after() -> str:
            for path in paths:
                if (out / path).is_file() and (out / path).read_bytes() != catalogue.read(
                    catalogue.get(path)
                ):
                    return f"{path} is not whole"
            return hidden(out)

        return walk(lambda: shutil.rmtree(out, ignore_errors=True), act, after)

    def scan(self) -> tuple[int, list[str]]:
        from furnel.catalogue import Catalogue
        from furnel.games import Install

        cache = self.folder / "cache"
        wanted = len(self.space.catalogue.assets)

        def act() -> None:
            Catalogue(Install(self.game)).refresh()

        def after() -> str:
            catalogue = Catalogue(Install(self.game))
            catalogue.refresh()
            count = len(catalogue.assets)
            catalogue.close()
            return "" if count == wanted else f"{count} assets instead of {wanted}"

        return walk(lambda: shutil.rmtree(cache, ignore_errors=True), act, after)


if __name__ == "__main__":
    names, folder, game, sources = sys.argv[1:]
    stories, fresh = Stories(Path(folder), Path(game), Path(sources)), Path(folder).with_suffix(".fresh")
    shutil.copytree(folder, fresh)
    for name in names.split(","):
        renewed(Path(folder), fresh)
        teller = os.fork()
        if teller == 0:
            places, wrong = stories.run(name)
            print(json.dumps({"story": name, "places": places, "wrong": wrong}), flush=True)
            os._exit(0)
        if os.waitpid(teller, 0)[1]:
            sys.exit(f"{name} was not told to its end")
