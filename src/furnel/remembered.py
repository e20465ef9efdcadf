"""Small things that are remembered between starts, as JSON in the user's folder: losing one costs a moment, never work."""

from __future__ import annotations

import contextlib
import json
from typing import Any

from furnel.atomic import write_text
from furnel.errors import FurnelError
from furnel.folders import state_folder


def recall(name: str) -> Any:
    """What was remembered under a name; None when nothing was, or it cannot be read."""
    try:
        return json.loads((state_folder() / f"{name}.json").read_text("utf-8"))
    except (OSError, ValueError):
        return None


def remember(name: str, what: object) -> None:
    """Remember something that JSON can hold; that it cannot be remembered is no reason to stop anything."""
    with contextlib.suppress(FurnelError):
        write_text(state_folder() / f"{name}.json", json.dumps(what, indent=1, ensure_ascii=False) + "\n")


def recall_texts(name: str) -> dict[str, list[str]]:
    """Texts that were remembered by a key, several for each."""
    told = recall(name)
    rows = told.items() if isinstance(told, dict) else ()
    return {str(key): [str(one) for one in many] for key, many in rows if isinstance(many, list)}


def remember_first(name: str, key: str, text: str, most: int) -> None:
    """Put a text first among those that are remembered by a key."""
    told = recall_texts(name)
    told[key] = [text, *(one for one in told.get(key, ()) if one != text)][:most]
    remember(name, told)
