"""The menu of load-outs: use one, keep the mods as they stand, take one from a file, give one to somebody."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtWidgets import QMenu, QWidget

from furnel.atomic import write_text
from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.session import Session
from furnel.desktop.widgets import picking
from furnel.errors import FurnelError
from furnel.games import Install
from furnel.mods.loadouts import (
    LoadOut,
    forget_load_out,
    keep_load_out,
    load_out_now,
    load_outs,
    read_load_out,
    standing_as,
)

_FILES = [("Load-outs", "*.toml")]


def load_out_menu(near: QWidget, session: Session) -> QMenu:
    """The menu for the open game, made anew each time."""
    menu, install = QMenu(dressed(near)), _install(session)
    known = load_outs(install) if install is not None else {}
    now = [(mod.id, mod.on) for mod in session.game.stack]
    for name, found in known.items():
        action = menu.addAction(name, partial(use, session, found))
        assert action is not None
        action.setCheckable(True)
        action.setChecked(standing_as(session.game.stack, found)[0] == now)
    if known:
        menu.addSeparator()
    menu.addAction(tr("Keep the mods as they stand…"), partial(_keep, near, session))
    menu.addAction(tr("Take one from a file…"), partial(_take, near, session))
    for title, work in (("Give one to somebody", partial(_give, near)), ("Forget", _forget)):
        if known and (below := menu.addMenu(tr(title))) is not None:
            for name, found in known.items():
                below.addAction(name, partial(work, session, found))
    return menu


def use(session: Session, found: LoadOut) -> None:
    """Switch and order the mods as a load-out says; the undo of the Try station takes it back."""
    order, switched = standing_as(session.game.stack, found)
    session.game.set_order(order)
    said = f"The mods are as in {found.name}"
    session.tell(
        "wrong" if switched.said else "calm", f"{said}, but {switched.said}" if switched.said else said
    )


def keep(session: Session, name: str) -> None:
    """Keep the mods as they stand under a name."""
    _try(session, lambda install: keep_load_out(install, load_out_now(install, name)), f"Kept as {name}")


def take(session: Session, file: Path) -> None:
    """Keep somebody's load-out."""
    _try(session, lambda install: keep_load_out(install, read_load_out(file)), f"Took {file.stem}")


def _keep(near: QWidget, session: Session) -> None:
    name = picking.ask_name(near, "Keep these mods as a load-out", "What is it called?", verb="Keep them")
    if name:
        keep(session, name)


def _take(near: QWidget, session: Session) -> None:
    file = picking.pick_file(near, "Somebody's load-out", "load-outs", _FILES)
    if file:
        take(session, file)


def _give(near: QWidget, session: Session, found: LoadOut) -> None:
    file = picking.pick_target(
        near, f"{found.name} for somebody", "load-outs", Path(f"{found.name}.toml"), _FILES
    )
    if file:
        _try(session, lambda _: write_text(file, found.text()), f"Written to {file.name}")


def _forget(session: Session, found: LoadOut) -> None:
    _try(
        session,
        lambda install: forget_load_out(install, found.name),
        f"Forgot {found.name}; the mods stay as they are",
    )


def _install(session: Session) -> Install | None:
    return session.catalogue.install if session.catalogue is not None else None


def _try(session: Session, work: Callable[[Install], object], said: str) -> None:
    install = _install(session)
    if install is None:
        return
    try:
        work(install)
        session.tell("calm", said)
    except FurnelError as error:
        session.tell("wrong", error.sentence())
