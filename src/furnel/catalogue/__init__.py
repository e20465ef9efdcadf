"""The catalogue of a game: what it has, how to narrow it, how to show it."""

from furnel.catalogue.index import Catalogue
from furnel.catalogue.kin import Kin
from furnel.catalogue.learning import mark_apart
from furnel.catalogue.likeness import Ranking, like_colour, like_picture, like_sound
from furnel.catalogue.marking import Marks, mark_all
from furnel.catalogue.previews import preview
from furnel.catalogue.shelf import Asset, Shelf
from furnel.catalogue.sieve import GROUPINGS, ORDERS, Facets, Group, Grouper, Sieve, count_facets
from furnel.catalogue.takeout import FORMS, NOTE, Form, noted_original, read_notes, take_out
from furnel.catalogue.wanted import Wanted, read_wanted

__all__ = [
    "FORMS",
    "GROUPINGS",
    "NOTE",
    "ORDERS",
    "Asset",
    "Catalogue",
    "Facets",
    "Form",
    "Group",
    "Grouper",
    "Kin",
    "Marks",
    "Ranking",
    "Shelf",
    "Sieve",
    "Wanted",
    "count_facets",
    "like_colour",
    "like_picture",
    "like_sound",
    "mark_all",
    "mark_apart",
    "noted_original",
    "preview",
    "read_notes",
    "read_wanted",
    "take_out",
]
