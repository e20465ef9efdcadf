"""Mods that live together: what they change in one file is done together, by record and value; the game itself judges it."""

from __future__ import annotations

import itertools
import json
import random
import subprocess
import sys
import tomllib
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from lxml import etree

from furnel.cli import main
from furnel.containers import find_layout, write_archive
from furnel.errors import FurnelError
from furnel.games import BRIDGE, Install, InstalledMod, read_stack, write_order
from furnel.mods.bridge import bridge_state, look_at_mods, make_bridge, members_of, remove_bridge
from furnel.mods.meeting import stand_of
from tarnlight import loaders
from tarnlight.world import World
from tests.conftest import digest

Files = dict[str, bytes]


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def put(game: Path, **mods: Files) -> Install:
    """Mods as a stranger's installer would put them there, in this order."""
    for mod, files in mods.items():
        for path, data in {**files, "mod.toml": about(mod)}.items():
            (game / "mods" / mod / path).parent.mkdir(parents=True, exist_ok=True)
            (game / "mods" / mod / path).write_bytes(data)
    write_order(game / "mods" / "order.toml", [(mod, True) for mod in mods])
    return Install(game)


def about(mod: str) -> bytes:
    return f'id = "{mod}"\nname = "{mod.title()}"\nversion = "1.0"\ngame-version = "1.2"\n'.encode()


def shipped(game: Path, name: str) -> Any:
    with zipfile.ZipFile(game / "data" / "rules.zip") as rules:
        return rules.read(name)


def edited(game: Path, name: str, edit: Callable[[Any], None]) -> bytes:
    told = json.loads(shipped(game, name))
    edit(told)
    return json.dumps(told, indent=1).encode()


def report(game: Path) -> dict[str, dict[str, str]]:
    ran = subprocess.run(
        [sys.executable, "-m", "tarnlight", "report", str(game), "--json"],
        capture_output=True,
        text=True,
        check=False,
    )
    return {entry["path"]: entry for entry in json.loads(ran.stdout)["assets"]}


BOAT = b"""[otter]
name = "Otter"
hull = "art/hulls/hull_otter.dds"
sail = "art/sails/sail_heron.dds"
length_m = %s
speed = %s
"""


def test_the_game_has_what_both_mods_want_of_one_record_and_one_list(game: Path) -> None:
    """Each alone would hide the other: the whole record of one mod, the whole playlist."""
    before = digest(game)

    install = put(
        game,
        fast={"rules/boats.toml": BOAT % (b"7.4", b"4.5"), "rules/wares.json": shipped(game, "wares.json")},
        long={"rules/boats.toml": BOAT % (b"9.5", b"3.2"), "rules/wares.json": shipped(game, "wares.json")},
    )
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 3.2  # the last one hides the first
    with_both = digest(game)
    made = make_bridge(install)
    assert [(one.path, one.kind) for one in made.stand.meetings] == [
        ("rules/boats.toml", "beside"), ("rules/wares.json", "same"),
    ]  # fmt: skip
    assert made.paths == ("rules/boats.toml",) and not made.stand.contests
    otter = World(game).book("rules/boats.toml")["otter"]
    assert (otter["speed"], otter["length_m"]) == (4.5, 9.5)
    word = report(game)["rules/boats.toml"]
    assert (word["winner"], word["verdict"]) == (BRIDGE, "accepted")
    assert set(tomllib.loads((game / "mods" / BRIDGE / "rules/boats.toml").read_text())) == {
        "otter"
    }  # only that
    assert [mod.id for mod in read_stack(install)] == ["fast", "long", BRIDGE]
    assert bridge_state(install) == ("current", "")
    assert "as it was" in remove_bridge(install)
    assert digest(game) == with_both != before and bridge_state(install) == ("", "")


def test_five_mods_in_one_playlist_and_one_table_merge_without_a_question(game: Path) -> None:
    names = ["one", "two", "three", "four", "five"]
    mods: dict[str, Files] = {}
    for name in names:

        def add(told: Any, name: str = name) -> None:
            first = next(iter(told.values()))
            told[name] = {**first, "title": f"The {name} tune"}

        mods[name] = {"rules/tunes.json": edited(game, "tunes.json", add)}
    made = make_bridge(put(game, **mods))
    assert not made.stand.contests and made.paths == ("rules/tunes.json",)
    tunes = json.loads((game / "mods" / BRIDGE / "rules/tunes.json").read_text())
    assert [key for key in tunes if key in names] == names
    assert set(json.loads(shipped(game, "tunes.json"))) <= set(tunes)


def test_a_contradiction_is_asked_once_remembered_and_changed(game: Path) -> None:
    install = put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        fast={"rules/boats.toml": BOAT % (b"8.8", b"6.0")},
    )
    [contest] = look_at_mods(install).contests
    assert (contest.address, contest.game, contest.winner, contest.decided) == (
        "otter/speed",
        "3.2",
        "fast",
        False,
    )
    assert contest.wants == (("slow", "1.1"), ("fast", "6.0"))
    assert not (game / "mods" / BRIDGE).exists()

    def otter() -> tuple[float, float]:
        record = World(game).book("rules/boats.toml")["otter"]
        return record["speed"], record["length_m"]

    assert make_bridge(install).paths == () and otter() == (6.0, 8.8)  # what the game does by itself
    make_bridge(install, decisions={("rules/boats.toml", "otter/speed"): "slow"})
    assert otter() == (1.1, 8.8)
    again = make_bridge(Install(game))  # remembered
    assert otter() == (1.1, 8.8) and again.stand.contests[0].decided
    make_bridge(install, decisions={("rules/boats.toml", "otter/speed"): "fast"})
    assert otter() == (6.0, 8.8) and not (game / "mods" / BRIDGE).exists()
    make_bridge(install, prefer=["slow"], decisions={})
    assert look_at_mods(install).contests[0].winner == "fast"  # what was decided for one place goes before
    with pytest.raises(FurnelError, match="no such mod"):
        make_bridge(install, prefer=["nobody"])


def test_a_picture_is_the_last_mods_or_that_of_the_one_that_was_chosen(game: Path) -> None:
    path = "art/hulls/hull_otter.dds"
    one, two = (Install(game).read(a, p.inner) for a, p in _two_hulls(game))
    install = put(game, early={path: one}, late={path: two})
    made = make_bridge(install)
    assert made.paths == () and made.stand.meetings[0].kind == "different"
    made = make_bridge(install, prefer=["early"])
    assert made.paths == (path,) and (game / "mods" / BRIDGE / path).read_bytes() == one
    assert report(game)[path]["winner"] == BRIDGE


def _two_hulls(game: Path) -> list[tuple[Any, Any]]:
    install = Install(game)
    found = [(a, p) for a in install.archives if a.name == "art.tlp" for p in install.places(a)]
    return [(a, p) for a, p in found if p.inner in ("art/hulls/hull_heron.dds", "art/hulls/hull_mail.dds")]


def test_it_is_stale_when_a_member_changes_and_is_renewed(game: Path) -> None:
    install = put(
        game,
        fast={"rules/boats.toml": BOAT % (b"7.4", b"4.5")},
        long={"rules/boats.toml": BOAT % (b"9.5", b"3.2")},
    )
    make_bridge(install)
    (game / "mods/fast/rules/boats.toml").write_bytes(BOAT % (b"7.4", b"5.5"))
    assert bridge_state(install) == ("stale", "fast is another now")
    make_bridge(install)
    assert (
        bridge_state(install)[0] == "current"
        and World(game).book("rules/boats.toml")["otter"]["speed"] == 5.5
    )
    order = game / "mods/order.toml"
    write_order(order, [("fast", True), (BRIDGE, True), ("long", True)])
    assert bridge_state(install) == ("stale", "it is not last in the load order")
    make_bridge(install)
    assert [mod.id for mod in read_stack(install)][-1] == BRIDGE
    write_order(order, [("fast", True), ("long", False), (BRIDGE, True)])
    assert bridge_state(install) == ("stale", "the mods or their order are others now")
    make_bridge(install)  # one mod alone needs none
    assert not (game / "mods" / BRIDGE).exists() and [mod.id for mod in members_of(install)] == ["fast"]
    (game / "mods" / BRIDGE).mkdir()
    (game / "mods" / BRIDGE / "mod.toml").write_bytes(about(BRIDGE))
    write_order(order, [("fast", True), ("long", True), (BRIDGE, True)])
    with pytest.raises(FurnelError, match="Furnel did not put it there"):
        make_bridge(install)


NAMES = st.sampled_from(["otter", "heron", "skiff", "herring"])
EDITS = st.dictionaries(
    st.tuples(NAMES, st.sampled_from(["length_m", "speed"])), st.integers(1, 40), max_size=5
)


@settings(max_examples=20)
@given(edits=st.lists(EDITS, min_size=2, max_size=3))
def test_any_order_gives_the_same_where_it_does_not_matter_and_nothing_is_lost(
    edits: list[dict[tuple[str, str], int]], tmp_path_factory: pytest.TempPathFactory, forged: Path
) -> None:
    """Mods that change different values, judged without any of our code."""
    install = Install(forged)
    base = tomllib.loads(shipped(forged, "boats.toml").decode())
    taken: set[tuple[str, str]] = set()
    wanted: dict[tuple[str, str], int] = {}
    docs: list[bytes] = []
    for one in edits:
        mine = {
            place: value
            for place, value in one.items()
            if place not in taken and base[place[0]][place[1]] != value
        }
        taken |= mine.keys()
        wanted |= mine
        text = shipped(forged, "boats.toml").decode()
        for (name, key), value in mine.items():
            head, _, tail = text.partition(f"[{name}]")
            before, _, rest = tail.partition(f"{key} = ")
            text = f"{head}[{name}]{before}{key} = {value}{rest[len(rest.split(chr(10))[0]) :]}"
        docs.append(text.encode())
    results, folder = set(), tmp_path_factory.mktemp("mods")
    for number, doc in enumerate(docs):
        (folder / f"mod{number}/rules").mkdir(parents=True)
        (folder / f"mod{number}/rules/boats.toml").write_bytes(doc)
    elsewhere = {place.name: place for place in folder.iterdir()}
    for order in itertools.permutations(range(len(docs))):
        mods = [InstalledMod(f"mod{number}", "", "", True, ("rules/boats.toml",)) for number in order]
        stand = stand_of(install, mods, elsewhere=elsewhere)
        assert not stand.contests
        made = next((one.data() for one in stand.meetings if one.data is not None), None)
        laid = dict(base)
        for number in order:
            laid |= tomllib.loads(docs[number].decode())
        if made is not None:
            laid |= tomllib.loads(made.decode())
        for (name, key), value in wanted.items():
            assert laid[name][key] == value, "what one mod alone changed is lost"
        results.add(json.dumps(laid, sort_keys=True))
    assert len(results) == 1
    install.close()


def test_mods_that_are_whole_archives_meet_entry_by_entry(
    game: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Five mods, each with a copy of the same bank and the same ZIP in which it changed one thing."""
    profile = Install(game).profile
    rebuilt = profile.model_copy(update={"mods": profile.mods.model_copy(update={"goes": "rebuilt"})})
    sounds = loaders.load_container(game / "data/bank0.tls")
    wav = sorted(sounds)
    mods: dict[str, Files] = {}
    for number, name in enumerate(["one", "two", "three", "four", "five"]):
        sounds_copy = {path.partition("/")[2]: data for path, data in sounds.items()}
        loud = sounds[wav[number]][:44] + bytes(len(sounds[wav[number]]) - 44)
        sounds_copy[wav[number].partition("/")[2]] = loud
        write_archive(tmp_path / "m/bank0.tls", dict(sorted(sounds_copy.items())), find_layout("tls"))
        copied = {f"data/{file.name}": file.read_bytes() for file in (tmp_path / "m").iterdir()}
        with zipfile.ZipFile(game / "data/rules.zip") as old, zipfile.ZipFile(tmp_path / "r.zip", "w") as new:
            for entry in old.namelist():
                boats = shipped(game, entry).replace(b"speed = 3.2", b"speed = 3.2\nseats = %d" % number)
                told = boats if entry == "boats.toml" and number == 0 else shipped(game, entry)
                if entry == "tunes.json":
                    told = edited(game, entry, lambda told, name=name: told.update({name: told["fog"]}))
                new.writestr(entry, told)
        mods[name] = {**copied, "data/rules.zip": (tmp_path / "r.zip").read_bytes()}
    put(game, **mods)
    install = Install(game, rebuilt)
    made = make_bridge(install)
    assert not made.stand.contests
    out = game / "mods" / BRIDGE / "data"
    merged_sounds = loaders.load_container(out / "bank0.tls")
    assert {path for path in wav if merged_sounds[path] != sounds[path]} == set(wav[:5])
    with zipfile.ZipFile(out / "rules.zip") as rules:
        assert {"one", "two", "three", "four", "five", "fog"} <= set(json.loads(rules.read("tunes.json")))
        assert b"seats = 0" in rules.read("boats.toml")
        assert rules.read("songs.json") == shipped(game, "songs.json")


def test_what_was_decided_for_a_mod_that_is_gone_stands_in_no_ones_way(game: Path) -> None:
    one, two = ({"rules/boats.toml": BOAT % (b"7.4", speed)} for speed in (b"1.1", b"4.0"))
    install = put(game, slow=one, fast=two, long={"rules/boats.toml": BOAT % (b"9.5", b"3.2")})
    make_bridge(install, ["slow"], {("rules/boats.toml", "otter/speed"): "slow"})
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 1.1
    order = game / "mods/order.toml"
    write_order(order, [("slow", False), ("fast", True), ("long", True), (BRIDGE, True)])
    make_bridge(install)
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 4.0
    write_order(order, [("slow", True), ("fast", True), ("long", True), (BRIDGE, True)])
    make_bridge(install)  # it is there again, and so is what was decided
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 1.1


def test_records_that_the_game_lays_together_by_itself_need_no_bridge(game: Path) -> None:
    head, first, second, *_ = shipped(game, "strings.csv").decode().splitlines()
    keys = [row.partition(",")[0] for row in (first, second)]

    def words(*rows: str) -> Files:
        return {"rules/strings.csv": "\n".join([head, *rows, ""]).encode()}

    install = put(
        game, one=words(f"{keys[0]},Ahoy", "boat.raft,Raft"), two=words(f"{keys[1]},Ohoi", "boat.punt,Punt")
    )
    made = make_bridge(install)
    assert [(one.kind, one.data) for one in made.stand.meetings] == [("beside", None)] and made.paths == ()
    found = {row["key"]: row["en"] for row in World(game).book("rules/strings.csv")}
    assert [found[key] for key in (*keys, "boat.raft", "boat.punt")] == ["Ahoy", "Ohoi", "Raft", "Punt"]
    install = put(game, one=words(f"{keys[0]},Ahoy"), two=words(f"{keys[0]},Ohoi"))
    [contest] = look_at_mods(install).contests
    assert contest.winner == "two" and dict(contest.wants) == {"one": "Ahoy", "two": "Ohoi"}
    make_bridge(install, decisions={(contest.path, contest.address): "one"})
    assert World(game).book("rules/strings.csv")[0]["en"] == "Ahoy"
    assert (game / "mods" / BRIDGE / "rules/strings.csv").read_text().count(
        "\n"
    ) == 2  # its head and that row


def test_what_is_for_people_is_no_meeting(game: Path) -> None:
    both = {"README.txt": b"1", "preview.png": b"2", "CHANGES.md": b"3", "art/readme.dds": b"4"}
    install = put(game, one=both, two={path: data + b"x" for path, data in both.items()})
    assert [one.path for one in look_at_mods(install).meetings] == ["art/readme.dds"]


def test_a_file_that_cannot_be_read_is_told(game: Path) -> None:
    install = put(
        game,
        one={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        two={"rules/boats.toml": BOAT % (b"7.4", b"4.0")},
    )
    stack = read_stack(install)
    (game / "mods/one/rules/boats.toml").unlink()
    with pytest.raises(FurnelError, match="boats.toml"):
        stand_of(install, stack)
    (game / "mods/one/rules/boats.toml").write_bytes(b"[otter\nnonsense")
    stand = stand_of(install, stack)  # a damaged one is taken as a whole, as the game does
    assert [(one.kind, one.contests[0].address) for one in stand.meetings] == [("different", "")]


def test_from_the_command_line(game: Path, capsys: pytest.CaptureFixture[str]) -> None:
    put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        fast={"rules/boats.toml": BOAT % (b"8.8", b"6.0")},
    )
    assert main(["bridge", str(game), "--look"]) == 0
    said = capsys.readouterr().out
    assert "otter/speed: the game has 3.2, slow wants 1.1, fast wants 6.0; fast comes last" in said
    assert "1 contradiction" in said and not (game / "mods" / BRIDGE).exists()
    assert main(["bridge", str(game), "--take", "rules/boats.toml:otter/speed=slow"]) == 0
    assert "slow was chosen" in capsys.readouterr().out
    assert main(["bridge", str(game), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["state"] == "current" and told["meetings"][0]["contests"][0]["decided"]
    assert main(["bridge", str(game), "--remove"]) == 0
    assert main(["bridge", str(game), "--take", "nonsense"]) == 2


def _scene(rows: dict[str, dict[str, dict[str, str]]]) -> bytes:
    """Scenes with their boats, as text that shares nothing with what reads it."""
    lines = ["<scenes>"]
    for scene, boats in rows.items():
        lines.append(f'  <scene id="{scene}">')
        for ref, row in boats.items():
            told = " ".join(f'{key}="{value}"' for key, value in {"ref": ref, **row}.items())
            lines.append(f"    <boat {told}/>")
        lines.append("  </scene>")
    return "\n".join([*lines, "</scenes>", ""]).encode()


def _boats(data: bytes) -> dict[str, dict[str, dict[str, str]]]:
    found: dict[str, dict[str, dict[str, str]]] = {}
    for scene in etree.fromstring(data).iter("scene"):
        boats = found.setdefault(str(scene.get("id")), {})
        for boat in scene.iter("boat"):
            row = {str(key): str(value) for key, value in boat.attrib.items()}
            boats[row.pop("ref")] = row
    return found


@pytest.mark.parametrize("seed", range(12))
def test_stacks_of_scenes_are_merged_as_an_oracle_has_it_or_told(game: Path, seed: int) -> None:
    """Two to four mods that move, add and take away boats of scenes: what is not asked about is as the records say."""
    draw = random.Random(seed)
    base = _boats(shipped(game, "scene.xml"))
    mods, wanted, asked = {}, {k: dict(v) for k, v in base.items()}, set()
    touched: dict[tuple[str, str], object] = {}
    for number in range(draw.randint(2, 4)):
        mine = {scene: {ref: dict(row) for ref, row in boats.items()} for scene, boats in base.items()}
        for scene, boats in mine.items():
            for ref in draw.sample(sorted(boats), min(len(boats), draw.randrange(2))):
                if draw.random() < 0.2:
                    del boats[ref]
                else:
                    boats[ref]["x"] = str(1000 + draw.randrange(9))
            if draw.random() < 0.4:
                boats[f"new{number}"] = {"x": "1", "depth": "2"}
            for ref in base[scene].keys() | boats.keys():
                if boats.get(ref) == base[scene].get(ref):
                    continue
                if touched.setdefault((scene, ref), boats.get(ref)) != boats.get(ref):
                    asked.add((scene, ref))
                if ref in boats:
                    wanted[scene][ref] = boats[ref]
                else:
                    wanted[scene].pop(ref, None)
        mods[f"m{number}"] = {"rules/scene.xml": _scene(mine)}
    made = make_bridge(put(game, **mods))
    file = game / "mods" / (BRIDGE if made.paths else list(mods)[-1]) / "rules/scene.xml"
    found = _boats(file.read_bytes())
    for scene, boats in wanted.items():
        for ref in boats.keys() | found[scene].keys():
            if (scene, ref) not in asked:
                assert found[scene].get(ref) == boats.get(ref), f"{ref} of {scene} is lost without a word"
    assert bool(made.stand.contests) == bool(asked), "asked about where they contradict, and nowhere else"


def test_two_mods_with_a_boat_of_their_own_are_both_seen(game: Path) -> None:
    base = _boats(shipped(game, "scene.xml"))
    scene = next(iter(base))
    one, two = (
        {**base, scene: {**base[scene], ref: {"x": x, "depth": "1"}}}
        for ref, x in (("raft", "11"), ("punt", "22"))
    )
    made = make_bridge(
        put(game, first={"rules/scene.xml": _scene(one)}, second={"rules/scene.xml": _scene(two)})
    )
    assert not made.stand.contests and made.paths == ("rules/scene.xml",)
    found = _boats((game / "mods" / BRIDGE / "rules/scene.xml").read_bytes())
    assert {"raft", "punt"} <= found[scene].keys() and found[scene].keys() >= base[scene].keys()
