"""The one error that bad input raises anywhere in Furnel."""

from __future__ import annotations


class FurnelError(Exception):
    """A refusal that a modder can act on.

    `what` was being done, `where` it went wrong (file, entry, line, key), `why`, and the `remedy`; `line` is its number in the
    file, 0 where there is none.
    """

    def __init__(
        self, what: str, *, where: object = "", why: str = "", remedy: str = "", line: int = 0
    ) -> None:
        self.what = what
        self.where = f"{where}, line {line}" if line else str(where)
        self.line = line
        self.why = why
        self.remedy = remedy
        super().__init__(self.sentence())

    def sentence(self) -> str:
        """All parts as one line of plain text."""
        head = f"{self.what} ({self.where})" if self.where else self.what
        parts = [f"{head}: {self.why}" if self.why else head]
        if self.remedy:
            parts.append(self.remedy)
        return ". ".join(part.rstrip(".") for part in parts) + "."


class Cancelled(FurnelError):
    """Raised where a job notices that its `Progress` was cancelled; nothing was changed."""

    def __init__(self, what: str) -> None:
        super().__init__(f"{what}: cancelled")


def reason(error: OSError) -> str:
    """The operating system's reason as a clause: `no such file or directory`."""
    text = error.strerror or str(error)
    return text[:1].lower() + text[1:]
