"""The window's language. All that it says goes through Qt's translation, and so does what the core says through it: the core
speaks English, as the command line does."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from importlib import resources
from importlib.resources.abc import Traversable

from PyQt6.QtCore import QCoreApplication, QLibraryInfo, QLocale, QTranslator

from furnel.desktop.phrases import Phrases

LANGUAGES = {"system": "As the system", "en": "English", "de": "Deutsch"}
"""What can be chosen, each in its own words."""
_OURS = "Furnel"
_installed: list[QTranslator] = []


class _Speaker(QTranslator):
    """What Furnel says in a language, by its texts in English."""

    def __init__(self, language: str) -> None:
        super().__init__()
        self._language = language
        self._texts = Phrases(texts_of(language))

    def language(self) -> str:
        return self._language

    def isEmpty(self) -> bool:
        return False

    def translate(
        self, context: str | None, source: str | None, disambiguation: str | None = None, n: int = -1
    ) -> str:
        # none at all tells Qt to ask the next one; an empty one is a text
        return self._texts.of(source or "") if context == _OURS else None  # type: ignore[return-value]


def tr(text: str) -> str:
    """A text of ours, or one of the core, in the language of the window; what is not known, such as a name, stays as it is."""
    return QCoreApplication.translate(_OURS, text) if _installed else text


def tr_all(texts: Iterable[str]) -> list[str]:
    """Several texts, each in the language of the window."""
    return [tr(text) for text in texts]


def language_of(wanted: str) -> str:
    """The language that a setting means: the system's where it is followed and known, English otherwise."""
    told = QLocale.system().name()[:2] if wanted == "system" else wanted
    return told if told in LANGUAGES and told != "system" else "en"


def spoken() -> str:
    """The language that is spoken now."""
    return _installed[-1].language() if _installed else "en"


def speak(language: str) -> None:
    """Speak a language (`en`, `de`) from now on; parts that are shown already keep their texts."""
    for old in _installed:
        QCoreApplication.removeTranslator(old)
    _installed.clear()
    if language == "en":
        return
    qt = QTranslator()
    qt.load(f"qtbase_{language}", QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath))
    for one in (qt, _Speaker(language)):
        QCoreApplication.installTranslator(one)
        _installed.append(one)


@cache
def texts_of(language: str) -> dict[str, str]:
    """Our texts in a language by what they are in English, from its file in the format of Qt Linguist (TS 2.1)."""
    from xml.etree import ElementTree

    with language_file(language).open("rb") as file:
        found = ElementTree.parse(file).getroot().iter("message")
        return {
            one.findtext("source", ""): said for one in found if (said := one.findtext("translation", ""))
        }


def language_file(language: str) -> Traversable:
    """Where the texts of a language are."""
    return resources.files("furnel.desktop") / "languages" / f"{language}.ts"
