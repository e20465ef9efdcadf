"""The catalogue of a game: what it has, how to narrow it, how to show it."""

from furnel.catalogue.facts import KINDS, Facts, Kind, facts_of
from furnel.catalogue.index import Asset, Catalogue
from furnel.catalogue.previews import Preview, media_preview, preview, preview_of
from furnel.catalogue.sieve import GROUPINGS, Facets, Sieve, count_facets, grouped
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
    "Kind",
    "Preview",
    "Sieve",
    "count_facets",
    "facts_of",
    "grouped",
    "media_preview",
    "preview",
    "preview_of",
    "take_out",
]
