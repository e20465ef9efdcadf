"""The collector of cycles waits while anybody asks for it, and is on again afterwards whatever happened."""

from __future__ import annotations

import gc
import threading

import pytest

from furnel.collecting import uncollected


def test_it_waits_for_the_last_and_comes_back() -> None:
    assert gc.isenabled()
    inside, go_on = threading.Event(), threading.Event()

    def other() -> None:
        with uncollected():
            inside.set()
            go_on.wait(5)

    asking = threading.Thread(target=other)
    with pytest.raises(ValueError, match="on the way"), uncollected():
        with uncollected():
            assert not gc.isenabled()
        asking.start()
        assert inside.wait(5)
        raise ValueError("on the way")
    assert not gc.isenabled()  # somebody else is still at it
    go_on.set()
    asking.join()
    assert gc.isenabled()


def test_who_had_it_off_keeps_it_off() -> None:
    gc.disable()
    try:
        with uncollected():
            pass
        assert not gc.isenabled()
    finally:
        gc.enable()
