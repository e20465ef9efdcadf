"""The catalogue of a game: what it has, how to narrow it, how to show it."""

from furnel.catalogue.facts import KINDS, Facts, Kind, facts_of
from furnel.catalogue.index import Catalogue
from furnel.catalogue.previews import Preview, media_preview, preview, preview_of
from furnel.catalogue.shelf import Asset, Shelf
from furnel.catalogue.sieve import GROUPINGS, Facets, Group, Grouper, Sieve, count_facets
from furnel.catalogue.takeout import FORMS, Form, take_out

__all__ = [
    "FORMS",
    "GROUPINGS",
    "KINDS",
    "Asset",
    "Catalogue",
    "Facets",
    "Facts",
    "Form",
    "Group",
    "Grouper",
    "Kind",
    "Preview",
    "Shelf",
    "Sieve",
    "count_facets",
    "facts_of",
    "media_preview",
    "preview",
    "preview_of",
    "take_out",
]
