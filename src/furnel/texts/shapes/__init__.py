"""The shapes that games give their own texts, each with what reads it."""

from furnel.texts.shapes.brackets import Brackets
from furnel.texts.shapes.lines import Lines
from furnel.texts.shapes.programs import Programs
from furnel.texts.shapes.scan import Scan, Token, pieces_of
from furnel.texts.shapes.sections import Sections

__all__ = ["Brackets", "Lines", "Programs", "Scan", "Sections", "Token", "pieces_of"]
