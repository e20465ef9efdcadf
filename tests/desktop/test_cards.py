"""Cards: what has to be read stays until it was, what can be done about it is one click, and nothing is in the way for long."""

from __future__ import annotations

from itertools import pairwise
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtCore import QEvent, QPointF
from PyQt6.QtGui import QDesktopServices, QEnterEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel

HULL = "art/hulls/hull_otter.dds"


def test_a_refusal_is_read_whole_and_small_talk_is_none(hands: Hands) -> None:
    window, cards = hands.window, hands.window.cards
    window.session.tell("calm", "Copied")
    assert not cards.shown
    long = (
        "It cannot be done, because of a reason that is longer than one line of the window can ever be. " * 3
    )
    for text in (long, "two", long, "three", "four"):
        window.session.tell("wrong", text)
    assert [card.notice.text for card in cards.shown] == [long, "three", "four"]  # once each, three at most
    first = cards.shown[0]
    words = next(part for part in first.findChildren(QLabel) if part.text() == long)
    assert words.height() >= words.heightForWidth(words.width()) and first.accessibleName() == long
    boxes = [card.geometry() for card in cards.shown]
    assert all(not one.intersects(two) for one, two in pairwise(boxes))
    assert all(window.rect().contains(box) and box.bottom() < window.line.y() for box in boxes)
    window.resize(1100, 700)
    QApplication.processEvents()
    assert all(window.rect().contains(card.geometry()) for card in cards.shown)
    hands.click(next(part for name, part in cards.shown[-1].buttons.items() if name == "What was said"))
    assert [card.notice.text for card in cards.shown] == [long, "three"]
    assert window.pages.said_page.isVisible()


def test_everything_that_was_said_is_listed_with_what_can_be_done(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    hands.station(2)
    session.swaps.remove_swap(HULL)
    session.tell("wrong", "The tarn is frozen")
    hands.key("Ctrl+L", window)
    page = window.pages.said_page
    assert page.isVisible()
    lines = page.told().splitlines()
    assert lines[0].endswith("✕  The tarn is frozen") and "hull_otter" in lines[1] and " ✓ " in lines[1]
    hands.click(page.refusals)
    assert page.told().splitlines() == lines[:1]
    session.tell("wrong", "And the ferry with it")
    assert page.told().count("\n") == 1  # also what is said while it is looked at
    hands.click(page.refusals)
    hands.key("Home", page.rows)
    for _ in range(2):
        hands.key("Down", page.rows)
    assert page.rows.accessibleDescription().endswith("it offers: Undo")
    hands.key("Return", page.rows)
    assert session.swap(HULL) is not None
    hands.key("Esc", page)
    assert window.stations.shown == "fit"  # back to where it was asked for
    for number in range(600):
        session.tell("calm", f"Wave {number}")
    page.open()
    assert page.told().startswith(f"{window.messages[-1].at:%H:%M}") and len(window.messages) == 500


def test_it_leaves_by_itself_but_not_while_it_is_pointed_at(hands: Hands) -> None:
    cards = hands.window.cards
    hands.window.session.tell("wrong", "no")
    card = cards.shown[0]
    card._time.setInterval(60)
    card._time.start()
    inside = QPointF(card.rect().center())
    QApplication.sendEvent(card, QEnterEvent(inside, inside, inside))
    QTest.qWait(150)  # type: ignore[arg-type]
    assert cards.shown == [card]
    QApplication.sendEvent(card, QEvent(QEvent.Type.Leave))
    hands.until(lambda: not cards.shown, "the card to leave", 5)


def test_a_removed_swap_comes_back_by_its_card_unless_more_was_changed(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    window, session, cards = hands.window, hands.window.session, hands.window.cards
    for more in (False, True):
        session.swaps.remove_swap(HULL)
        hands.settle()
        assert session.swap(HULL) is None
        if more:
            session.swaps.remove_swap("bank0/000.wav")
        card = next(one for one in cards.shown if "hull_otter" in one.notice.text)
        hands.click(card.buttons["Undo"])
        hands.settle()
        assert (session.swap(HULL) is None) == more
    assert "changed since" in window.messages[-1].text
    opened: list[str] = []
    monkeypatch.setattr(
        QDesktopServices, "openUrl", lambda url: bool(opened.append(url.toLocalFile())) or True
    )
    session.tell_written("Written", tmp_path / "a.zip")
    hands.click(cards.shown[-1].buttons["Show in folder"])
    assert opened == [str(tmp_path)]
