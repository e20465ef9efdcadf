"""The JSON Schemas of the files that people write, for editors that complete them."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from pydantic import BaseModel

from furnel.containers import Layout
from furnel.games import Profile
from furnel.mods.project import Project


def schemas() -> dict[str, str]:
    """File name to schema text."""
    models: dict[str, type[BaseModel]] = {"layout": Layout, "profile": Profile, "project": Project}
    return {
        f"{name}.schema.json": json.dumps(model.model_json_schema(by_alias=True), indent=1, sort_keys=True)
        + "\n"
        for name, model in models.items()
    }


if __name__ == "__main__":
    for name, text in schemas().items():
        (Path(sys.argv[1]) / name).write_text(text, "utf-8")
