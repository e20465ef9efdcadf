"""The Share page: what strangers get to know is written, nothing typed is lost, the package is tried."""

from __future__ import annotations

import zipfile
from pathlib import Path

from demo.hands import Hands
from PIL import Image
from PyQt6.QtWidgets import QApplication

from furnel.mods.sharing import README
from furnel.mods.workspace import open_workspace


def test_a_mod_is_made_ready_for_strangers(hands: Hands, mod: Path, tmp_path: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    session.swaps.fit_all(["art/hulls/hull_otter.dds"])
    hands.settle()
    hands.station(3)
    hands.key("Ctrl+Shift+S", window)
    hands.settle()
    page = window.pages.share_page
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
    assert page.credit.isHidden()
    window.undoing.step(False)
    hands.settle()
    assert not page.credit.isHidden() and "without credit" in page._gaps.text()
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
    hands.click(page._copy)
    clipboard = QApplication.clipboard()
    assert clipboard is not None and clipboard.text().strip() == readme.strip()
    hands.type(" And hums.", page.description)
    hands.key("Esc", page)  # typed and left at once
    hands.settle()
    assert window.stations.currentWidget() is window.build_station
    assert open_workspace(mod).project.mod.description == "It *sings*. And hums."
