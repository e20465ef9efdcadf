"""How numeric kernels are compiled: once per machine, cached in the user's cache folder, free of the lock."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar, cast

from furnel.folders import cache_folder

Function = TypeVar("Function", bound=Callable[..., Any])


announce: list[Callable[[str], object]] = []
"""Who is told, once, that the kernels have to be compiled before anything numeric can be done."""


def _say_once() -> None:
    if announce and not any(Path(os.environ["NUMBA_CACHE_DIR"]).glob("*/*.nbi")):
        for tell in announce:
            tell("Furnel makes itself ready for this machine, once: about a minute")
    announce.clear()


def kernel(*signatures: str, inlined: bool = True) -> Callable[[Function], Function]:
    """Compile a function with Numba: eager `signatures`, no interpreter lock, cached on disk.

    Without signatures it is a helper of other kernels, put into them whole unless `inlined` is off.
    """
    if "NUMBA_CACHE_DIR" not in os.environ:
        os.environ["NUMBA_CACHE_DIR"] = str(cache_folder() / "kernels")
    _say_once()
    import numba

    options: dict[str, Any] = {"nogil": True, "cache": True, "fastmath": False, "error_model": "numpy"}

    if inlined and not signatures:
        options["forceinline"] = True  # a helper: passing arrays to it would cost more than its work

    def compile_now(function: Function) -> Function:
        compiled: Any = numba.njit(list(signatures) or None, **options)(function)
        return cast(Function, compiled)

    return compile_now
