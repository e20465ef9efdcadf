"""What commands do that is more than a call: those that ask something first, and those that go somewhere."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QProcess, QUrl
from PyQt6.QtGui import QDesktopServices
from PyQt6.QtWidgets import QApplication

from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import copy_text
from furnel.words import count

if TYPE_CHECKING:
    from furnel.desktop.actions import Command
    from furnel.desktop.fit.definition_bench import DefinitionBench
    from furnel.desktop.session import Session
    from furnel.desktop.widgets.panes import SidePane
    from furnel.desktop.widgets.quickcommand import Offer
    from furnel.desktop.window import Window
    from furnel.mods.shelf import OnShelf

_MOST_FOUND = 24
_PACKED = (".zip", ".7z", ".tar", ".tgz", ".txz", ".gz", ".xz", ".zst", ".bz2")


def open_game(window: Window) -> None:
    """Ask for a game's folder."""
    folder = picking.pick_folder(window, "The game's folder", "games")
    if folder:
        window.open_folder(folder)


def show_in_folder(session: Session, path: Path) -> None:
    """Show a file or a folder in the system's own file manager."""
    folder = path if path.is_dir() else path.parent
    if not QDesktopServices.openUrl(QUrl.fromLocalFile(str(folder))):
        session.tell("wrong", f"No program shows folders here: it is {folder}")


def open_again(window: Window) -> None:
    """Open what is open anew, after what is known of its game was changed."""
    session = window.session
    if session.space is not None:
        session.open_mod(session.space.file)
    elif session.catalogue is not None:
        session.open_game(session.catalogue.install.folder)


def open_from_shelf(window: Window, row: OnShelf) -> None:
    """Open a mod, or a game alone, that was opened before."""
    if row.project is not None:
        window.session.open_mod(row.project)
    else:
        window.open_folder(row.game)


def take_dropped(window: Window, paths: list[Path]) -> None:
    """Do with dropped files what they are for: open a game or a mod, look into somebody's mod or an archive, match sources."""
    from furnel.media import PICTURE, SOUND, medium_by_suffix

    first, session = paths[0], window.session
    if not first.exists():
        session.tell("wrong", f"There is nothing at {first}")
        return
    project = first / "furnel.toml" if first.is_dir() else first
    if project.name == "furnel.toml" and project.is_file():
        session.open_mod(project)
    elif first.is_dir():
        window.open_folder(first)
    elif first.suffix.lower() in _PACKED and session.catalogue is not None:
        window.pages.look_into(first)
    elif medium_by_suffix(first) in (PICTURE, SOUND):
        if session.project is None:
            session.tell("wrong", f"{first.name} is a source: open a mod first, then drop it on the wall")
        else:
            window.go("find")
            window.pages.match_files(paths)
    else:
        window.pages.work_out(first)


def open_mod(window: Window) -> None:
    """Ask for a mod's project."""
    file = picking.pick_file(window, "A mod's project", "projects", [("Furnel mods", "furnel.toml")])
    if file:
        window.session.open_mod(file)


def new_mod(window: Window) -> None:
    """Ask what a new mod is called and where it lies."""
    from furnel.desktop.newmod import ask_new_mod

    asked = ask_new_mod(window, window.session)
    if asked is not None:
        window.session.new_mod(*asked)


def _ask_source(window: Window, name: str) -> Path | None:
    return picking.pick_file(window, f"A file to put in the place of {name}", "sources")


def swap(window: Window) -> None:
    """Ask for a file to put in the selected asset's place."""
    chosen = window.find_station.wall.chosen()
    name = chosen[0].name if len(chosen) == 1 else count(len(chosen), "asset")
    if chosen and (file := _ask_source(window, name)):
        swap_all(window, [asset.path for asset in chosen], file)


def swap_all(window: Window, originals: list[str], file: Path) -> None:
    """Swap one original for a file and put it on the bench, or several for the same file, made to fit each of them."""
    if len(originals) == 1:
        window.session.swaps.swap_with(originals[0], file, window.open_bench)
    else:
        window.session.swaps.swap_many([(original, file) for original in originals])


def paste_source(window: Window) -> None:
    """Swap what is at hand for the picture or the file in the clipboard."""
    from furnel.desktop.widgets.dropping import encoded_picture, files_in, picture_in

    clipboard = QApplication.clipboard()
    data = clipboard.mimeData() if clipboard is not None else None
    chosen = (
        [asset.path for asset in window.find_station.wall.chosen()] if window.stations.shown == "find" else []
    )
    originals = chosen or [window.swap_at_hand()]
    files, picture = files_in(data), picture_in(data)
    if not originals[0]:
        window.session.tell("wrong", "Select what it is to replace first")
    elif files:
        swap_all(window, originals, files[0])
    elif picture is not None:
        encoded = encoded_picture(picture)
        window.session.swaps.keep_picture(
            originals[0], encoded, lambda file: swap_all(window, originals, file)
        )
    else:
        window.session.tell("wrong", "There is neither a picture nor a file in the clipboard: copy one first")


def begin_own(window: Window) -> None:
    """Begin swaps of what is selected with the game's own as their sources."""
    assets = [asset.path for asset in window.find_station.wall.chosen()]
    window.session.swaps.begin_with_own(assets, window.open_bench)


def change_values(window: Window) -> None:
    """Put the selected definition on the bench."""
    asset = window.find_station.wall.current()
    if asset is not None:
        open_definition(window, asset.path)


def text_at_hand(window: Window) -> str:
    """The text that is selected on the wall, or on the bench; nothing for anything else."""
    bench = definition_bench(window)
    asset = window.asset_in_sight()
    path = asset.path if asset is not None else bench.path if bench is not None else ""
    catalogue = window.session.catalogue
    if not path or catalogue is None or not catalogue.has(path):
        return ""
    return path if catalogue.get(path).facts.kind == "definition" else ""


def show_reading(window: Window) -> None:
    """Show how the text at hand is read."""
    path = text_at_hand(window)
    window.pages.show_page(window.pages.reading_page, "")
    window.pages.reading_page.open(path)


def open_definition(window: Window, path: str) -> None:
    """Put a definition on the bench, changed already or not."""
    window.session.swaps.open_definition(path, window.open_bench)


def definition_bench(window: Window) -> DefinitionBench | None:
    """The bench for definitions, while it is in sight."""
    shown = window.fit_station.benches.shown if window.stations.shown == "fit" else None
    return shown if shown is not None and hasattr(shown, "turn") else None  # type: ignore[return-value]


def turn_text(window: Window) -> None:
    """Show the text of the definition on the bench instead of its records, or these again."""
    bench = definition_bench(window)
    if bench is not None:
        bench.turn()


def replace_source(window: Window) -> None:
    """Ask for another source of the swap at hand."""
    original = window.swap_at_hand()
    if file := _ask_source(window, original):
        window.session.swaps.swap_with(original, file)


def source_at_hand(window: Window) -> Path | None:
    """The file that the swap at hand is made from, when it is there."""
    space, swap = window.session.space, window.session.swap(window.swap_at_hand())
    if space is None or swap is None or not swap.source:
        return None
    file = space.source_path(swap)
    return file if file.is_file() else None


def open_source(window: Window) -> None:
    """Open the source of the swap at hand in its own program; when it is saved there, the bench follows."""
    from furnel.media import PICTURE, SOUND, medium_by_suffix

    file = source_at_hand(window)
    if file is None:
        return
    medium = medium_by_suffix(file)
    kind = "sound" if medium is SOUND else "picture" if medium is PICTURE else "definition"
    program = window.settings.now.programs.get(kind, "")
    if program and not QProcess.startDetached(program, [str(file)])[0]:
        window.session.tell("wrong", f"{program} could not be started: choose another one in the settings")
    elif not program and not QDesktopServices.openUrl(QUrl.fromLocalFile(str(file))):
        window.session.tell("wrong", f"No program opens such files here: it is {file}")


def show_source(window: Window) -> None:
    """Show the source of the swap at hand in its folder."""
    file = source_at_hand(window)
    if file is not None:
        show_in_folder(window.session, file)


def show_original(window: Window) -> None:
    """Show the original of the swap at hand on the wall."""
    window.show_asset(window.swap_at_hand())


def swaps_at_hand(window: Window) -> list[str]:
    """The swaps that are in sight: all that are marked on the wall, or the one on the bench."""
    marked = window.find_station.wall.chosen() if window.stations.shown == "find" else []
    paths = [asset.path for asset in marked if window.session.swap(asset.path) is not None]
    return paths or ([window.swap_at_hand()] if window.swap_at_hand() else [])


def match(window: Window) -> None:
    """Ask for a folder whose files are to be paired with originals."""
    folder = picking.pick_folder(window, "A folder with files for this game", "sources")
    if folder:
        window.pages.match_files([folder])


def take_out(window: Window) -> None:
    """Ask how to take out what is chosen on the wall."""
    from furnel.desktop import asking

    asking.take_out(window, window.session, window.find_station.wall.chosen())


def pack(window: Window) -> None:
    """Ask which folder becomes which archive."""
    from furnel.desktop import asking

    asking.pack_folder(window, window.session)


def paste_like(window: Window) -> None:
    """Rank the wall by what is in the clipboard."""
    window.go("find")
    if not window.find_station.sieve.like.paste():
        window.session.tell("wrong", "There is no picture in the clipboard: copy a crop of the game first")


def copy_path(window: Window) -> None:
    """Put the selected asset's inner path into the clipboard."""
    asset = window.find_station.wall.current()
    if asset is not None:
        copy_text(asset.path)
        window.session.tell("calm", f"Copied {asset.path}")


def fit_everything(window: Window) -> None:
    """Fit all swaps that do not fit yet."""
    wanted = ("breaks", "differs")
    broken = [name for name, found in window.session.examined.items() if found.state in wanted]
    if broken:
        window.session.swaps.fit_all(broken)
    else:
        window.session.tell("calm", "Everything fits already")


def remove_swap(window: Window) -> None:
    """Take the swaps at hand out of the mod."""
    if originals := swaps_at_hand(window):
        window.session.swaps.remove_swap(*originals)


def install(window: Window) -> None:
    """Install; what lies in the mod's place and is not Furnel's is named first."""
    _over(window, window.session.game.install, "Install over it", "comes back with Remove")


def remove(window: Window) -> None:
    """Take the mod off the game; what is not Furnel's is named first."""
    _over(window, window.session.game.remove, "Remove it all the same", "is gone then")


def _over(window: Window, call: Callable[[bool], None], verb: str, gone: str) -> None:
    from furnel.desktop.widgets.sheets import ask

    why, project = window.session.game.foreign, window.session.project
    if not why:
        call(False)
        return
    mod = project.mod.id if project else ""
    text = f"In the game's mods folder, under “{mod}”: {why}. What lies there now {gone}."
    if ask(window, "Something else lies there", text, verb):
        call(True)


def search(window: Window) -> None:
    """Put the cursor into the wall's search."""
    window.go("find")
    window.find_station.sides[0].fold(False)
    window.find_station.sieve.text.setFocus()
    window.find_station.sieve.text.selectAll()


def go_fit(window: Window) -> None:
    """Show the Fit station, with what is selected on the wall when that is swapped."""
    asset = window.find_station.wall.current()
    if window.stations.shown == "find" and asset is not None and window.session.swap(asset.path) is not None:
        window.fit_station.pick(asset.path)
    window.go("fit")


def _offers(window: Window) -> list[Offer]:
    """Every command, with why it cannot be used now."""
    from furnel.desktop.actions import COMMANDS, key_of
    from furnel.desktop.settings import PARTS
    from furnel.desktop.widgets.quickcommand import Offer

    def offer(entry: Command) -> Offer:
        why = "" if window.usable(entry) else entry.need.words
        return Offer(
            entry.id, entry.text, entry.tip, key_of(entry.id), lambda: window.run_command(entry.id), why
        )

    def setting(name: str, text: str, hint: str) -> Offer:
        return Offer(f"set {name}", text, f"a setting: {hint}", "", lambda: show_settings(window, name))

    out = [offer(entry) for entry in COMMANDS if entry.id != "quick"]
    return out + [setting(name, text, hint) for name, (text, hint) in PARTS.items()]


def _found(window: Window, words: str) -> list[Offer]:
    """All swaps, and the assets that some words name."""
    from furnel.desktop.widgets.quickcommand import Offer

    session = window.session

    def swapped(path: str) -> Offer:
        says = f"your swap, {path}"
        return Offer(f"swap {path}", session.name_of(path), says, "", lambda: window.open_bench(path))

    def on_wall(path: str) -> Offer:
        says = f"on the wall, {path}"
        return Offer(f"asset {path}", session.name_of(path), says, "", lambda: window.show_asset(path))

    out = [swapped(swap.original) for swap in session.project.swaps] if session.project is not None else []
    if session.catalogue is not None:
        shelf = session.catalogue.assets
        rows = shelf.with_words(words).nonzero()[0][:_MOST_FOUND]
        out += [on_wall(shelf.paths[row]) for row in rows.tolist()]
    return out


def quick(window: Window) -> None:
    """Open the quick command, or close it."""
    from furnel.desktop.widgets.quickcommand import QuickCommand

    shown = window.findChild(QuickCommand)
    if shown is not None and shown.isVisible():
        shown.leave()
        return
    made = QuickCommand(window, window.look, _offers(window), lambda words: _found(window, words))
    window.look.dress(made)
    made.open()


def show_keys(window: Window) -> None:
    """Every key at a glance."""
    from furnel.desktop.widgets import sheets

    sheets.show_keys(window)


def show_settings(window: Window, part: str = "") -> None:
    """What can be set; a part of it, by its name, with the cursor there."""
    page = window.pages.settings_page
    page.open()
    window.pages.show_page(page)
    page.go(part)


def new_game(window: Window) -> None:
    """Ask for an unknown game's folder and look at it."""
    if window.pages.new_game_page.ask():
        window.pages.show_page(window.pages.new_game_page)


def ask_for_archive(window: Window) -> None:
    """Ask for a file and look at it on the archive bench."""
    if window.pages.archive_page.ask():
        window.pages.show_page(window.pages.archive_page)


def demo_is_open(window: Window) -> bool:
    """Whether the mod that is open is one to be shown around in."""
    from furnel.desktop.around import HULL

    return window.session.swap(HULL) is not None


def show_around(window: Window) -> None:
    """Show somebody around."""
    from furnel.desktop import around

    window.go("find")
    around.show_around(window)


def leave(window: Window) -> None:
    """Close Furnel."""
    whole = window.window()
    (whole or window).close()


def panes_here(window: Window) -> list[SidePane]:
    """The side panes of what is in sight."""
    from furnel.desktop.widgets.panes import SidePane

    here = window.stations.currentWidget()
    return [pane for pane in here.findChildren(SidePane) if pane.isVisible()] if here is not None else []


def fold_panes(window: Window) -> None:
    """Fold every side pane away, or bring them all back when none is left."""
    panes = panes_here(window)
    away = not all(pane.folded for pane in panes)
    for pane in panes:
        pane.fold(away)


def other_theme(window: Window) -> None:
    """Light for dark, dark for light."""
    window.settings.set(theme="light" if window.look.theme == "dark" else "dark")
