"""The JSON Schemas of the files that people write, for editors that complete them."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from furnel.containers import Layout
from furnel.games import Profile
from furnel.mods.project import file_schema


def schemas() -> dict[str, str]:
    """File name to schema text."""
    known = {
        "layout": Layout.model_json_schema(by_alias=True),
        "profile": Profile.model_json_schema(by_alias=True),
        "project": file_schema(),
    }
    return {
        f"{name}.schema.json": json.dumps(schema, indent=1, sort_keys=True) + "\n"
        for name, schema in known.items()
    }


if __name__ == "__main__":
    for name, text in schemas().items():
        (Path(sys.argv[1]) / name).write_text(text, "utf-8")
