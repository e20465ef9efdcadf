"""Mods: projects, swaps, the fit, building, installing. Its modules are loaded when they are first used (`mods.build`)."""

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from types import ModuleType

    from furnel.mods import (
        bridge,
        build,
        definitions,
        deploy,
        edit,
        events,
        fit,
        getting,
        history,
        outside,
        project,
        render,
        store,
        strips,
        workspace,
    )

    __all__ = [
        "bridge",
        "build",
        "definitions",
        "deploy",
        "edit",
        "events",
        "fit",
        "getting",
        "history",
        "outside",
        "project",
        "render",
        "store",
        "strips",
        "workspace",
    ]


def __getattr__(name: str) -> "ModuleType":
    if name.startswith("_"):
        raise AttributeError(name)
    try:
        return import_module(f"furnel.mods.{name}")
    except ModuleNotFoundError as error:
        raise AttributeError(name) from error
