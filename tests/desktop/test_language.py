"""The window in another language: every text of ours has one, names and values stay theirs, and nothing is left in English."""

from __future__ import annotations

import errno
import os
import re
from collections.abc import Iterator
from pathlib import Path
from xml.etree import ElementTree

import pytest
from demo.hands import Hands
from demo.languages import SOURCE, WORDS, texts_said, write_language
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QCoreApplication, QPoint
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLabel, QLineEdit, QMenu, QWidget

from furnel.desktop.application import make_window
from furnel.desktop.language import LANGUAGES, language_file, language_of, speak, spoken, texts_of, tr
from furnel.desktop.phrases import Phrases, places
from furnel.desktop.settings import load_settings
from furnel.desktop.widgets.menus import commands_at, menu_under
from furnel.mods.project import StepUse
from furnel.remembered import remember
from furnel.texts import Change

from .fitting_in import cut_off
from .test_sizes import views

OTHERS = [language for language in LANGUAGES if language not in ("system", "en")]
SEA = {
    "the game": "das Spiel", "Open": "Öffnen", "{n} swap": "{n} Tausch", "{n} swaps": "{n} Tausche", "fits": "passt",
    "{0} of {1} fit": "{0} von {1} passen", "Opening {0}": "{0} wird geöffnet", "it is “{0}”": "es ist „{0}“",
    "{0} in {1}": "{1}: {0}", "Try it in the game": "Probier es im Spiel", ", and no more": ", und nicht mehr",
    "the file is damaged": "die Datei ist beschädigt", "Reading {0}": "{0} wird gelesen", "Ctrl+{0}": "Strg+{0}",
    "Take the game’s {0=}": "Das des Spiels nehmen: {0}", "none": "keine",
}  # fmt: skip


@pytest.fixture
def german(application: QApplication) -> Iterator[None]:
    speak("de")
    yield
    speak("en")


@pytest.fixture
def painted(monkeypatch: pytest.MonkeyPatch) -> set[str]:
    """What parts of our own paint."""
    said: set[str] = set()
    draw = QPainter.drawText

    def spy(painter: QPainter, *args: object) -> object:
        said.update(arg for arg in args if isinstance(arg, str))
        return draw(painter, *args)  # type: ignore[call-overload]

    monkeypatch.setattr(QPainter, "drawText", spy)
    return said


# the files


@pytest.mark.parametrize("language", OTHERS)
def test_every_text_of_ours_is_said_in_it_with_the_same_places(language: str) -> None:
    texts, said = texts_of(language), texts_said()
    assert not said.keys() - texts.keys(), "run: ./run python -m demo.languages"
    assert not texts.keys() - said.keys()
    assert not {text: told for text, told in texts.items() if places(text) != places(told)}
    longer = sum(map(len, texts.values())) / sum(map(len, texts))
    assert 1.0 < longer < 1.5, "whole texts, and not the English ones"


@pytest.mark.parametrize("language", OTHERS)
def test_its_file_is_what_the_tool_writes(
    language: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    kept = Path(str(language_file(language)))
    monkeypatch.setattr("demo.languages.language_file", lambda name: tmp_path / f"{name}.ts")
    assert write_language(language, texts_of(language)) == 0
    assert (tmp_path / kept.name).read_text("utf-8") == kept.read_text("utf-8")
    read = ElementTree.parse(kept).getroot()
    assert (read.tag, read.get("language")) == ("TS", language) and not read.findall(".//translation[@type]")


def test_a_word_of_the_list_is_said_somewhere() -> None:
    source = "\n".join(
        file.read_text("utf-8") for file in SOURCE.rglob("*") if file.suffix in (".py", ".toml")
    )
    system = {os.strerror(number) for number in errno.errorcode}
    known = system | {"field required", "extra inputs are not permitted"}  # by the checker of our files
    words = WORDS.read_text("utf-8").splitlines()
    assert not [word for word in words if "{" not in word and word not in source and word not in known]


# what is put together


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("the game", "das Spiel"),
        ("The game.", "Das Spiel."),
        ("Open…", "Öffnen…"),
        ("1 swap", "1 Tausch"),
        ("1\u2009200 swaps", "1\u2009200 Tausche"),
        ("7 of 9 fit", "7 von 9 passen"),
        ("Opening 12 swaps", "12 Tausche wird geöffnet"),
        ("Reading otter.dds: the file is damaged. Try it in the game.",
         "otter.dds wird gelesen: die Datei ist beschädigt. Probier es im Spiel."),
        ("otter.dds in the game", "das Spiel: otter.dds"),
        ("2 swaps, and no more", "2 Tausche, und nicht mehr"),
        ("Open  (Ctrl+O)", "Öffnen  (Strg+O)"),
        ("<b>the game</b>&nbsp;fits", "<b>das Spiel</b>&nbsp;passt"),
        ("it is “the game”", "es ist „the game“"),
        ("Take the game’s none", "Das des Spiels nehmen: none"),
        ("Reading otter.dds: the keel of it is 2 swaps", "otter.dds wird gelesen: the keel of it is 2 swaps"),
    ],
)  # fmt: skip
def test_what_is_put_together_is_read(text: str, said: str) -> None:
    assert Phrases(SEA).of(text) == said


@pytest.mark.parametrize(
    "text",
    [
        "My first swap",
        "hull_otter.dds",
        "Northern Lights",
        "3.2",
        "",
        "the boat flies over the water of the tarn",
        "art/fits/x.png",
    ],
)
def test_names_and_the_words_of_others_stay(text: str) -> None:
    assert Phrases(SEA).of(text) is None


@given(st.sampled_from(sorted(SEA)), st.text(st.characters(blacklist_categories=["Cs"]), max_size=30))
def test_what_stands_in_a_place_comes_back_as_it_was_where_it_is_nothing_of_ours(key: str, name: str) -> None:
    if (
        "{0}" in key
        and "{1}" not in key
        and not re.search(r"[a-zA-Z]{2}", name)
        and name.strip() == name
        and name
    ):
        said = Phrases(SEA).of(key.replace("{0}", name))
        assert said is not None and name in said


def test_any_text_is_read_in_time_and_comes_back_as_some_text() -> None:
    texts = Phrases(texts_of("de"))
    long = "; ".join(
        f"Size: {n} × {n}, yours {n} × {n + 1}, differs, a name of the game's own" for n in range(12)
    )
    assert texts.of(long) is None or "Größe" in str(texts.of(long))


# the window


def test_the_setting_is_used_from_the_next_start(application: QApplication) -> None:
    remember("settings", {"language": "de"})
    assert language_of(load_settings().language) == "de"
    remember("settings", {"language": "Klingon"})
    assert load_settings().language == "system" and language_of("system") in ("en", "de")
    remember("settings", {})
    assert spoken() == "en" and tr("Open") == "Open"
    speak("de")
    try:
        assert tr("Open") == "Öffnen" and tr("hull_otter.dds") == "hull_otter.dds"
        assert QCoreApplication.translate("QShortcut", "Ctrl") == "Strg", "and Qt's own words with it"
    finally:
        speak("en")


def test_a_games_own_values_stay_as_they_are(german: None, hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    session.swaps.change_values(
        "rules/boats.toml", [Change(do="set", at="otter/name", to="none")], "Nameless"
    )
    hands.settle()
    hands.station(2)
    hands.window.fit_station.pick("rules/boats.toml")
    hands.settle()
    told = {part.text() for part in hands.window.fit_station.findChildren(QLabel)}
    assert "otter/name: Otter → none" in told and "ÄNDERUNGEN" in told


def test_the_walls_groups_are_named_in_it_and_folders_are_the_games(
    german: None, hands: Hands, mod: Path, painted: set[str]
) -> None:
    hands.open(mod)
    head = hands.window.find_station.head
    for group, wanted in (("kind", "Definition"), ("folder", "rules")):
        head.group.setCurrentIndex(head.group.findData(group))
        hands.window.find_station.sieve.text.setText("rules/boats")
        hands.settle()
        hands.until(lambda: hands.window.find_station.wall.shown == 1, "the wall to have one")
        painted.clear()
        hands.window.repaint()
        assert wanted in painted and not {"definition", "Regeln"} & painted
    hands.click(next(part for part in head.findChildren(QAbstractButton) if "Zeilen" in part.text()))
    hands.settle()
    painted.clear()
    hands.window.repaint()
    assert {"rules", "Definitionen"} <= painted and "Regeln" not in painted


def test_what_is_chosen_in_it_is_kept_in_the_words_of_the_format(
    german: None, hands: Hands, mod: Path
) -> None:
    hands.open(mod)
    hands.station(2)
    station, session = hands.window.fit_station, hands.window.session
    hull = "art/hulls/hull_otter.dds"
    station.pick(hull)
    swap = session.swap(hull)
    assert swap is not None
    step = StepUse(do="size", values={"width": 64, "height": 64, "how": "fill"})
    session.swaps.set_swap(swap.model_copy(update={"steps": (step,)}), "Size")
    hands.settle()
    next(
        part for part in station.findChildren(QAbstractButton) if part.text() == "▸  Auf Größe bringen"
    ).click()
    hands.settle()
    box = next(
        part
        for part in station.findChildren(QComboBox)
        if part.isVisible() and part.currentText() == "füllen"
    )
    place = box.findText("strecken")
    box.setCurrentIndex(place)
    box.activated.emit(place)
    hands.settle()
    swap = session.swap(hull)
    assert swap is not None and swap.steps[0].values["how"] == "stretch"
    assert "strecken" not in mod.read_text("utf-8")


_LEFT = re.compile(r"(?i)\b(the|of|and|is|are|with|this|that|from|your|yours|its|not|no|yes|for|has)\b")


def test_no_view_has_a_word_of_english_left_nor_anything_cut_off(
    german: None, hands: Hands, mod: Path, game: Path, sources: Path, painted: set[str]
) -> None:
    told = "\n".join(
        file.read_text("utf-8")
        for folder in (mod.parent, game)
        for file in folder.rglob("*")
        if file.suffix in (".toml", ".json", ".txt")
    )

    def theirs(text: str) -> bool:
        return (
            text.startswith("#") or "/tmp/" in text or text.strip("… ") in told or text.split("\n")[0] in told
        )

    faults = []
    for view in views(hands, mod, game, sources):
        hands.settle()
        hands.window.resize(1024, 640)
        hands.settle()
        faults += [f"{view}: {fault}" for fault in cut_off(hands.window)]
        shown = {
            text for part in hands.window.findChildren(QWidget) if part.isVisible() for text in _texts(part)
        }
        faults += [
            f"{view}: {text!r}" for text in sorted(shown | painted) if _LEFT.search(text) and not theirs(text)
        ]
        painted.clear()
    assert not faults, "\n".join(faults)


def _texts(part: QWidget) -> Iterator[str]:
    yield part.toolTip()
    yield part.accessibleName()
    yield part.accessibleDescription()
    if isinstance(part, QLabel | QAbstractButton):
        yield re.sub("<[^>]*>", "", part.text())
    elif isinstance(part, QLineEdit):
        yield part.placeholderText()
    elif isinstance(part, QComboBox):
        yield from (part.itemText(place) for place in range(part.count()))


def test_menus_name_commands_and_keys_in_it(
    german: None, hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    said: list[str] = []
    monkeypatch.setattr(
        QMenu, "exec", lambda menu, *_: said.extend(action.text() for action in menu.actions())
    )
    hands.open(mod)
    commands_at(hands.window, ["fit-all", "remove-swap"], QPoint(0, 0))
    assert said == ["Alle Punkte anpassen\tStrg+Eingabe", "Den Tausch entfernen\tEntf"]
    said.clear()
    menu_under(hands.window, [("name", 1), ("none", 2)], lambda _: None)  # keys of a record, say
    menu_under(hands.window, (), print, "Nothing to show")
    assert said == ["name", "none", "Nichts zu zeigen"]


def test_the_first_window_speaks_it(german: None) -> None:
    window = make_window()
    try:
        names = {part.text() for part in window.findChildren(QAbstractButton)}
        assert "Ein Spiel öffnen…" in names and not {"Open a game…", "Open a mod…"} & names
    finally:
        window.close()
        window.deleteLater()
