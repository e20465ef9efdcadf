"""The catalogue of a game: what it has, how to narrow it, how to show it."""

from furnel.catalogue.facts import KINDS, Facts, Kind, facts_of
from furnel.catalogue.index import Asset, Catalogue
from furnel.catalogue.previews import Preview, preview, preview_of
from furnel.catalogue.sieve import GROUPINGS, Facets, Sieve, count_facets, grouped

__all__ = [
    "GROUPINGS", "KINDS", "Asset", "Catalogue", "Facets", "Facts", "Kind", "Preview", "Sieve", "count_facets", "facts_of",
    "grouped", "preview", "preview_of",
]  # fmt: skip
