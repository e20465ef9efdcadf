"""How numeric kernels are compiled: once per machine, cached in the user's cache folder, free of the lock."""

from __future__ import annotations

import os
from collections.abc import Callable
from typing import Any, TypeVar, cast

from furnel.folders import cache_folder

Function = TypeVar("Function", bound=Callable[..., Any])


def kernel(*signatures: str, inlined: bool = True) -> Callable[[Function], Function]:
    """Compile a function with Numba: eager `signatures`, no interpreter lock, cached on disk.

    Without signatures it is a helper of other kernels, put into them whole unless `inlined` is off.
    """
    if "NUMBA_CACHE_DIR" not in os.environ:
        os.environ["NUMBA_CACHE_DIR"] = str(cache_folder() / "kernels")
    import numba

    options: dict[str, Any] = {"nogil": True, "cache": True, "fastmath": False, "error_model": "numpy"}

    if inlined and not signatures:
        options["forceinline"] = True  # a helper: passing arrays to it would cost more than its work

    def compile_now(function: Function) -> Function:
        compiled: Any = numba.njit(list(signatures) or None, **options)(function)
        return cast(Function, compiled)

    return compile_now
