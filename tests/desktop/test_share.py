"""The Share page: what strangers get to know is written, nothing typed is lost, the package is tried."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtWidgets import QApplication

from furnel.desktop.build.share import SharePage
from furnel.mods.sharing import README
from furnel.mods.workspace import open_workspace


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """What is remembered of sources is forgotten between the tests."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def sharing(hands: Hands, mod: Path) -> SharePage:
    """The page for a mod in which everything fits."""
    hands.open(mod)
    hands.window.session.swaps.fit_all(["art/hulls/hull_otter.dds"])
    hands.settle()
    hands.station(3)
    hands.key("Ctrl+Shift+S", hands.window)
    hands.settle()
    return hands.window.pages.share_page


def test_a_mod_is_made_ready_for_strangers(hands: Hands, mod: Path, tmp_path: Path) -> None:
    page = sharing(hands, mod)
    window, session = hands.window, hands.window.session
    assert page.title.text() == "Share Evening Post" and "could be said better" in page.said.text()
    page.fields["author"].setText("Runa")
    page.fields["author"].editingFinished.emit()
    page.fields["tags"].setText("boats, , evening ")
    page.fields["tags"].editingFinished.emit()
    page.fields["version"].setText("../1")
    page.fields["version"].editingFinished.emit()
    assert "version" in window.messages[-1].text and page.fields["version"].text() == "0.1"
    page.licence.setCurrentText("CC-BY-4.0")
    page.licence.textActivated.emit("CC-BY-4.0")
    hands.type("It *sings*.", page.description)
    Image.new("RGB", (64, 36), (40, 90, 70)).save(tmp_path / "shot.png")
    hands.drop(tmp_path / "shot.png", page)  # at once, before anything has had time to be saved
    hands.settle()
    about = session.project.mod if session.project is not None else None
    assert (
        about is not None
        and about.description == "It *sings*."
        and page.description.toPlainText() == "It *sings*."
    )
    assert (about.author, about.tags, about.licence, about.preview) == (
        "Runa",
        ("boats", "evening"),
        "CC-BY-4.0",
        "preview.png",
    )
    hands.type("Mira, CC0-1.0", page.credit)
    hands.key("Return", page.credit)
    hands.settle()
    assert session.project is not None and {swap.credit for swap in session.project.swaps if swap.source} == {
        "Mira, CC0-1.0"
    }
    assert not page.credit.isEnabled()
    window.undoing.step(False)
    hands.settle()
    assert page.credit.isEnabled() and page.sources.topLevelItem(0).text(1) == "nobody is named"
    window.undoing.step(True)
    hands.settle()
    hands.click(page.package)
    hands.until(lambda: page.tried, "the package to be tried")
    hands.settle()
    assert {point.state for point in page.tried} == {"fits"}
    made = mod.parent / "build" / "evening-post-0.1.zip"
    with zipfile.ZipFile(made) as packed:
        readme = packed.read(f"evening-post/{README}").decode()
    assert page.reads.toPlainText().strip() == readme.strip() and "It *sings*." in readme
    hands.click(page.copy)
    clipboard = QApplication.clipboard()
    assert clipboard is not None and clipboard.text().strip() == readme.strip()
    hands.type(" And hums.", page.description)
    hands.key("Esc", page)  # typed and left at once
    hands.settle()
    assert window.stations.currentWidget() is window.build_station
    assert open_workspace(mod).project.mod.description == "It *sings*. And hums."


def test_what_is_said_of_one_source_what_changed_and_the_script(
    hands: Hands, mod: Path, sources: Path, tmp_path: Path
) -> None:
    space = open_workspace(mod)
    swap = space.fitted(space.new_swap("ensigns/small/kettle.tga", sources / "ensign_small.png"))
    space.save(space.project.with_swap(swap))
    page = sharing(hands, mod)
    session = hands.window.session
    rows = {page.sources.topLevelItem(row).text(0): row for row in range(page.sources.topLevelItemCount())}
    page.sources.topLevelItem(rows["ensign_small.png"]).setSelected(True)
    hands.type("Åse, OFL-1.1", page.credit)
    hands.key("Return", page.credit)
    hands.settle()
    assert session.project is not None
    credits = {swap.original: swap.credit for swap in session.project.swaps if swap.source}
    assert credits.pop("ensigns/small/kettle.tga") == "Åse, OFL-1.1" and not any(credits.values())
    again = open_workspace(mod).new_swap("ensigns/small/kettle.tga", sources / "ensign_small.png")
    assert again.credit == "Åse, OFL-1.1"  # the same file, wherever it is used
    hands.click(page.turns["changes"])
    page.changes.setPlainText("0.1\n- It sings now.")
    hands.click(page.installer)
    hands.settle()
    hands.click(page.package)
    hands.until(lambda: page.tried, "the package to be tried")
    hands.settle()
    with zipfile.ZipFile(mod.parent / "build" / "evening-post-0.1.zip") as packed:
        assert packed.read("evening-post/CHANGES.txt").decode() == "0.1\n- It sings now.\n"
        script = packed.read("evening-post/merge.py").decode()
    assert "rules/" in script and str(tmp_path) not in script


def test_the_figures_of_a_sheet_become_the_picture_and_undo_takes_it_back(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.window.run_command("share")
    page = hands.window.pages.share_page
    hands.until(page.use_figures.isEnabled, "the figures")
    assert hands.window.session.project.mod.preview == ""
    hands.click(page.use_figures)
    hands.until(lambda: hands.window.session.project.mod.preview == "preview.png", "the picture")
    with Image.open(mod.parent / "preview.png") as picture:
        assert picture.size == (640, 360) and getattr(picture, "n_frames", 1) > 3
    hands.settle()
    hands.key("Ctrl+Z", page)
    hands.until(lambda: hands.window.session.project.mod.preview == "", "the change to be taken back")


def test_another_source_does_not_have_the_credit_of_the_old_one(
    hands: Hands, mod: Path, sources: Path
) -> None:
    hands.open(mod)
    session, hull = hands.window.session, "art/hulls/hull_otter.dds"
    old = session.swap(hull)
    session.swaps.set_swap(old.model_copy(update={"credit": "Runa, CC0"}), "Credit")
    session.swaps.swap_with(hull, mod.parent / old.source)  # the same file once more
    hands.settle()
    assert session.swap(hull).credit == "Runa, CC0"
    session.swaps.swap_with(hull, sources / "otter_teal.png")
    hands.until(lambda: session.swap(hull).source.endswith("otter_teal.png"), "the other source")
    assert session.swap(hull).credit == ""
    hands.key("Ctrl+Z", hands.window)
    hands.until(lambda: session.swap(hull).credit == "Runa, CC0", "the change to be taken back")
    assert session.swap(hull).source == old.source
