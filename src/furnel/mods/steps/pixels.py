"""Steps that know single pixels and exact colours: layers, ground, palettes, tiles, touching up."""

from __future__ import annotations

from typing import cast

from furnel.errors import FurnelError
from furnel.imagefiles import composed
from furnel.images.picture import Picture
from furnel.mods.steps.frames import CELL, layout_in
from furnel.mods.steps.step import Around, Parameter, StepType, Values
from furnel.sprites import changes_text, ground_of, parse_changes, parse_colours, recoloured, snapped
from furnel.sprites.tiles import FILLS, SOURCES, Fill, Source, made_tiles, parse_meets
from furnel.sprites.touching import parse_touches, touched, touches_text, without_ground
from furnel.words import count

_GROUP = "Pixels"


def _layers(picture: Picture, values: Values, around: Around) -> Picture:
    wanted = [name.strip() for name in str(values["names"]).split("|") if name.strip()]
    if around.layers is None:
        around.tell("the source has no layers")
        return picture
    layers = around.layers()
    known = [layer.name for layer in layers]
    for name in wanted:
        if name not in known:
            raise FurnelError(
                "Choosing layers",
                where=name,
                why="the source has no such layer",
                remedy=f"It has {', '.join(known)}",
            )
    chosen = [layer for layer in layers if (layer.name in wanted if wanted else layer.visible)]
    around.tell(f"{len(chosen)} of {count(len(layers), 'layer')}")
    return composed(chosen)


LAYERS = StepType(
    "layers", "Choose layers", "picture",
    (Parameter("names", "Layers, | between", "text", ""),),
    _layers,
    lambda values: str(values["names"]) or "those that are visible",
    _GROUP,
)  # fmt: skip


def _ground(picture: Picture, values: Values, around: Around) -> Picture:
    colours = parse_colours(str(values["colours"])) or ground_of(picture)
    out, done = without_ground(picture, colours, int(values["tolerance"]), bool(values["border"]))
    around.tell(
        f"{count(done, 'pixel')} of {', '.join(bytes(colour).hex() for colour in colours) or 'no ground'}"
    )
    return out


GROUND = StepType(
    "ground-away", "Take the ground away", "picture",
    (
        Parameter("colours", "Colours", "text", ""),
        Parameter("tolerance", "Spread", "whole", 6, 0, 255),
        Parameter("border", "From the border only", "switch", False),
    ),
    _ground,
    lambda values: f"{values['colours'] or 'the colours that are found'}, ±{values['tolerance']}",
    _GROUP, clears=lambda values: tuple(str(values["colours"]).split()),
)  # fmt: skip


def _palette(picture: Picture, values: Values, around: Around) -> Picture:
    changes, locked = parse_changes(str(values["changes"])), parse_colours(str(values["locked"]))
    out, done = recoloured(picture, changes)
    told = [f"{count(done, 'pixel')} changed"] if changes else []
    if locked:
        out, drifted = snapped(out, locked, int(values["within"]), parse_colours(str(values["key"])))
        told.append(f"{count(drifted, 'pixel')} brought back to locked colours")
    around.tell(", ".join(told) or "nothing to do")
    return out


def _palette_summary(values: Values) -> str:
    changes, locked = str(values["changes"]).split(), str(values["locked"]).split()
    words = [", ".join(changes) if len(changes) <= 3 else f"{len(changes)} colours"] if changes else []
    words += [f"{count(len(locked), 'locked colour')}"] if locked else []
    return ", ".join(words) or "as it is"


PALETTE = StepType(
    "palette", "Change colours exactly", "picture",
    (
        Parameter("changes", "Colours", "text", ""),
        Parameter("locked", "Locked colours", "text", ""),
        Parameter("within", "Bring back from", "whole", 48, 0, 255),
        Parameter("key", "Clear colour", "text", ""),
    ),
    _palette, _palette_summary, _GROUP,
    joined=lambda old, new: {
        **old, **new, "changes": joined_changes(str(old.get("changes", "")), str(new.get("changes", ""))),
        "locked": str(new.get("locked") or old.get("locked") or ""),
    },
    clears=lambda values: tuple(bytes(old).hex() for old in parse_changes(str(values["changes"]))),
    gives=lambda values: tuple(parse_changes(str(values["changes"])).values()),
)  # fmt: skip


def joined_changes(old: str, new: str) -> str:
    """Colour changes after other ones: what became a colour that changes again becomes that one."""
    first, second = parse_changes(old), parse_changes(new)
    out = {one: second.get(other, other) for one, other in first.items()}
    reached = set(first.values())
    out |= {one: other for one, other in second.items() if one not in first and one not in reached}
    return changes_text({one: other for one, other in out.items() if one != other})


def _touch(picture: Picture, values: Values, around: Around) -> Picture:
    touches = parse_touches(str(values["pixels"]))
    out, outside = touched(picture, touches)
    around.tell(
        f"{count(outside, 'pixel')} outside the picture"
        if outside
        else count(len(touches), "touch", "touches")
    )
    return out


TOUCH_UP = StepType(
    "touch-up", "Touch up", "picture",
    (Parameter("pixels", "Pixels", "text", ""),),
    _touch,
    lambda values: f"{len(str(values['pixels']).split())} by hand",
    _GROUP, is_last=True,
    joined=lambda old, new: {
        **old, "pixels": touches_text(parse_touches(f"{old.get('pixels', '')} {new.get('pixels', '')}"))
    },
)  # fmt: skip


def _tiles(picture: Picture, values: Values, around: Around) -> Picture:
    sheet = around.needed_original("Making tiles")
    grid = layout_in(values, sheet.size).grid(sheet)
    meets = parse_meets(str(values["meets"])) or ("nesw",) * grid.count
    side = int(values["side"]) or _side(picture, values, grid.width)
    at = int(values["left"]), int(values["top"])
    around.tell(f"tiles of {side} pixels into {count(len(meets), 'cell')} of {grid.width}")
    return made_tiles(
        picture, side, sheet, grid, meets, cast(Source, values["from"]), cast(Fill, values["fill"]), at
    )


def _side(picture: Picture, values: Values, cell: int) -> int:
    """How large a source's tiles are when nobody says: the largest that the source has enough of and that divides a cell."""
    across = {"a block of 3 × 3": 3, "one tile": 1}.get(str(values["from"]), 4)
    room = min(picture.width - int(values["left"]), picture.height - int(values["top"])) // across
    return next((side for side in range(min(room, cell), 0, -1) if cell % side == 0), 1)


TILES = StepType(
    "tiles", "Make tiles", "picture",
    (
        *CELL,
        Parameter("meets", "Sides that go on", "text", ""),
        Parameter("from", "Made from", "choice", SOURCES[0], choices=SOURCES),
        Parameter("side", "A tile's side (0: found)", "whole", 0, 0, 1024),
        Parameter("fill", "A larger cell by", "choice", FILLS[0], choices=FILLS),
        Parameter("left", "Begins at", "whole", 0, 0, 32768),
        Parameter("top", "Down", "whole", 0, 0, 32768),
    ),
    _tiles,
    lambda values: f"from {values['from']}, {values['fill']}",
    "Sheet", uses_original=True,
)  # fmt: skip

STEPS = (LAYERS, GROUND, PALETTE, TILES, TOUCH_UP)
"""These, in the menus' order."""
