"""On a real screen with a window manager: keys, focus, popups, sizes, and files dragged from another program."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from furnel.mods.project import load_project
from tests.desktop.screen import Person, missing, screen

pytestmark = pytest.mark.skipif(bool(missing()), reason=f"{', '.join(missing())} cannot be installed here")


@pytest.fixture
def person(mod: Path) -> Iterator[Person]:
    with screen() as environment:
        somebody = Person(environment, mod)
        somebody.until(
            lambda seen: seen["swaps"] and not seen["busy"] and seen["active"], "the mod, in front"
        )
        yield somebody


def test_keys_focus_popups_and_drops(person: Person, mod: Path, sources: Path) -> None:
    seen = person.look()
    assert seen["frame"][2] < 1280 and seen["frame"][3] < 800, "the window is larger than its screen"

    person.hand("key", "ctrl+k")
    person.until(lambda seen: seen["focus"] == "Command", "the quick command to take the keys")
    person.hand("type", "light or")
    person.hand("key", "Return")
    person.until(
        lambda seen: seen["theme"] == "light" and seen["focus"] == "Wall", "the theme, and the wall's keys"
    )
    person.hand("key", "ctrl+k")
    person.until(lambda seen: seen["focus"] == "Command", "the quick command again")
    person.press(person.look()["beside"])
    seen = person.until(lambda seen: seen["focus"] == "Wall", "the quick command to close")
    assert seen["selected"] == "", "the press that closed it selected something, too"

    person.press(seen["mod"])
    person.until(lambda seen: seen["menus"] == 1, "the menu")
    person.hand("key", "Escape")
    person.until(lambda seen: seen["menus"] == 0 and seen["active"], "the menu to close")
    person.hand("key", "F1")
    person.until(
        lambda seen: seen["dialogs"] == [seen["keys"]] == ["Keys"], "the sheet of keys to have the keys"
    )
    person.hand("key", "Escape")
    person.until(lambda seen: not seen["dialogs"] and seen["active"], "the window to have the keys again")

    person.hand("key", "ctrl+1", "Right")
    chosen = person.until(lambda seen: seen["selected"], "the first tile")["selected"]
    before = set(person.look()["swaps"])
    person.drag(sources / "dusk_paint.jpg", person.look()["wall"])
    seen = person.until(
        lambda seen: set(seen["swaps"]) > before and not seen["busy"], "the file on the first tile"
    )
    assert set(seen["swaps"]) - before == {chosen}
    person.hand("key", "ctrl+z")
    person.until(lambda seen: set(seen["swaps"]) == before and not seen["busy"], "the swap to be taken back")
    person.hand("key", "ctrl+2")
    person.until(lambda seen: seen["station"] == 1 and seen["focus"] == "Swaps", "Fit, and its queue's keys")
    person.hand("key", "Delete")
    gone = person.until(lambda seen: len(seen["swaps"]) == len(before) - 1, "the swap in sight to be removed")
    assert person.leave() == 0
    assert {swap.original for swap in load_project(mod).swaps} == set(gone["swaps"])


def test_a_small_screen_shows_the_whole_window(mod: Path) -> None:
    with screen(1100, 700) as environment:
        person = Person(environment, mod)
        seen = person.until(lambda seen: seen["swaps"] and seen["active"], "the mod")
        assert seen["frame"][2] < 1100 and seen["frame"][3] < 700
        assert person.leave() == 0
