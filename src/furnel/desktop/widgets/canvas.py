"""A surface that is painted and scrolled down."""

from __future__ import annotations

from PyQt6.QtWidgets import QAbstractScrollArea, QScrollBar, QWidget


class Canvas(QAbstractScrollArea):
    """A scroll area whose surface and bar are there, as Qt promises and its stubs do not know."""

    @property
    def surface(self) -> QWidget:
        """What is painted on."""
        found = self.viewport()
        assert found is not None
        return found

    @property
    def bar(self) -> QScrollBar:
        """What scrolls it down."""
        found = self.verticalScrollBar()
        assert found is not None
        return found
