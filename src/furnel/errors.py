"""The one error that bad input raises anywhere in Furnel."""

from __future__ import annotations


class FurnelError(Exception):
    """A refusal that a modder can act on.

    `what` was being done, `where` it went wrong (file, entry, line, key), `why`, and the `remedy`.
    """

    def __init__(self, what: str, *, where: object = "", why: str = "", remedy: str = "") -> None:
        self.what = what
        self.where = str(where)
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
