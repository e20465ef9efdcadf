"""What a start leaves for later, loaded while nobody waits for it."""

from __future__ import annotations

import importlib
import logging
import pkgutil
import threading

log = logging.getLogger(__name__)


def load_ahead() -> threading.Thread:
    """Load what stations, benches and pages need, beside the window, so that each opens at once when it is first asked for."""
    thread = threading.Thread(target=_load, name="furnel-ahead", daemon=True)
    thread.start()
    return thread


def _load() -> None:
    import furnel.desktop

    try:
        for found in pkgutil.walk_packages(furnel.desktop.__path__, f"{furnel.desktop.__name__}."):
            if not found.name.endswith("__main__"):
                importlib.import_module(found.name)
    except Exception:
        log.exception("loading ahead")  # who needs it says so
