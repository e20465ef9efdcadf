"""One window for all starts: a later start hands its files to the one that is open, and ends."""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import socket
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.folders import state_folder

if TYPE_CHECKING:
    from PyQt6.QtCore import QObject

_MOST = 1 << 20  # bytes of one handing over
_LONGEST = 100  # bytes of a socket's path, in any system
_WAIT_S = 4.0  # for an answer; then a window of one's own is better than none


def address() -> Path:
    """The socket on which the open window listens; one for each user and folder of state."""
    mark = hashlib.sha256(str(state_folder().resolve()).encode()).hexdigest()[:12]
    runtime = os.environ.get("XDG_RUNTIME_DIR", "")
    name = f"furnel-{os.getuid()}-{mark}.socket"
    fits = runtime and Path(runtime).is_dir() and len(os.fsencode(runtime)) + len(name) < _LONGEST
    return (Path(runtime) if fits else Path("/tmp")) / name


def hand_over(paths: Sequence[Path]) -> bool:
    """Give some paths to the window that is open; whether there is one, and it took them."""
    message = json.dumps([str(path.absolute()) for path in paths]).encode() + b"\n"
    with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as line, contextlib.suppress(OSError):
        if address().stat().st_uid != os.getuid():
            return False  # somebody else's
        line.settimeout(_WAIT_S)
        line.connect(str(address()))
        line.sendall(message)
        return line.recv(16) == b"taken\n"
    return False


def receive(parent: QObject, take: Callable[[list[Path]], object]) -> Callable[[], None]:
    """Take what later starts hand over, on the interface thread; what it gives ends that."""
    from PyQt6.QtNetwork import QLocalServer

    server, place = QLocalServer(parent), address()
    server.setSocketOptions(QLocalServer.SocketOption.UserAccessOption)  # nobody else of this machine
    if not server.listen(str(place)):
        QLocalServer.removeServer(str(place))  # of a start that was killed: `hand_over` got no answer from it
        server.listen(str(place))

    def come() -> None:
        line = server.nextPendingConnection()
        if line is None:
            return
        told = bytearray()

        def read() -> None:
            told.extend(line.readAll().data())
            if len(told) > _MOST:
                line.abort()
            elif told.endswith(b"\n"):
                with contextlib.suppress(ValueError, UnicodeDecodeError):
                    rows = json.loads(told.decode())
                    if isinstance(rows, list) and all(isinstance(row, str) for row in rows):
                        line.write(b"taken\n")
                        line.flush()
                        take([Path(row) for row in rows])
                line.disconnectFromServer()

        line.readyRead.connect(read)
        line.disconnected.connect(line.deleteLater)
        if line.bytesAvailable():
            read()

    server.newConnection.connect(come)
    return server.close
