"""Commands that ask several things before they do anything: what to take out and how, what to pack as what."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtWidgets import QWidget

from furnel import catalogue as game
from furnel import containers
from furnel.catalogue import Asset
from furnel.desktop.find.take import TakeDialog
from furnel.desktop.look import dressed
from furnel.desktop.session import Session
from furnel.desktop.widgets import picking


def take_out(parent: QWidget, session: Session, assets: Sequence[Asset]) -> None:
    """Ask how and where to, then take assets out."""
    catalogue = session.catalogue
    if not assets or catalogue is None:
        return
    parent = dressed(parent)
    name = assets[0].name if len(assets) == 1 else f"{len(assets)} assets"
    kin = [path for asset in assets for path in session.learned.kin(asset.path)]
    dialog = TakeDialog(parent, name, len(kin))
    if not dialog.exec() or not (folder := picking.pick_folder(parent, f"Where to put {name}", "taken out")):
        return
    paths = list(dict.fromkeys([asset.path for asset in assets] + (kin if dialog.with_kin else [])))
    form = dialog.form

    def done(files: list[Path]) -> None:
        many = f"{len(files)} files taken out to {folder}"
        session.tell_written(
            f"Taken out to {files[0]}" if len(files) == 1 else many, files[0] if files else folder
        )

    session.jobs.start(
        "Taking out",
        lambda progress: game.take_out(paths, catalogue.bytes_of, folder, form, progress),
        done,
        lane="write",
    )


def pack_folder(parent: QWidget, session: Session, folder: Path | None = None) -> None:
    """Ask for a folder (when none is given), a layout and a file, then make an archive."""
    parent = dressed(parent)
    if folder is None:
        folder = picking.pick_folder(parent, "A folder to make an archive of", "taken out")
        if folder is None:
            return
    source = folder
    names = [*containers.LIBRARY_KINDS, *containers.known_layouts()]
    name = picking.ask_one(parent, f"Pack {source.name}", "As what kind of archive?", names, "Go on")
    if name is None:
        return
    target = picking.pick_target(parent, "The archive", "archives", source.with_suffix(f".{name}"))
    if target:
        layout = containers.layout_named(name)
        session.jobs.start(
            f"Packing {source.name}",
            lambda progress: containers.pack_folder(source, layout, target, progress),
            lambda count: session.tell_written(f"{count} files packed as {target}", target),
            lane="write",
        )
