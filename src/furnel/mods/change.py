"""What a job made of a project, applied to the project as it is when the job ends: nothing edited meanwhile is lost."""

from __future__ import annotations

from dataclasses import dataclass

from furnel.mods.project import About, EventUse, Project, Swap

_FITTED_FROM = ("source", "changes", "steps", "encode", "insist", "like")


@dataclass(frozen=True, slots=True)
class Merged:
    """A project with a job's change in it, and what the job had worked on that was changed meanwhile and stays as it is."""

    project: Project
    dropped: tuple[str, ...]


def merged(before: Project, after: Project, now: Project) -> Merged:
    """Bring what a job changed, `before` to `after`, into the project as it is `now`.

    Of a swap only the fields that the job changed are taken over. One whose source, steps, encoding or kept points were
    changed meanwhile, or that was removed or put in meanwhile, stays as it is now.
    """
    dropped: list[str] = []
    project = now
    for original in _in_order(before, after):
        old, new, here = before.swap_for(original), after.swap_for(original), now.swap_for(original)
        if old == new or here == new:
            continue
        if new is None:
            if here == old:
                project = project.without_swap(original)
            else:
                dropped.append(original)
        elif old is None and here is None:
            project = project.with_swap(new)
        elif old is None or here is None or (joined := _joined(old, new, here)) is None:
            dropped.append(original)
        else:
            project = project.with_swap(joined)
    for name in sorted({use.name for use in (*before.events, *after.events)}):
        was, made, is_now = before.event_for(name), after.event_for(name), project.event_for(name)
        if was == made or is_now == made:
            continue
        if now.event_for(name) == was:
            project = project.with_event(made or EventUse(name=name))
        else:
            dropped.append(name)
    about = {
        key: getattr(after.mod, key)
        for key in About.model_fields
        if getattr(after.mod, key) != getattr(before.mod, key)
        and getattr(now.mod, key) == getattr(before.mod, key)
    }
    if about:
        project = project.model_copy(update={"mod": project.mod.model_copy(update=about)})
    return Merged(project, tuple(dropped))


def _in_order(before: Project, after: Project) -> list[str]:
    seen = {swap.original: None for swap in after.swaps} | {swap.original: None for swap in before.swaps}
    return list(seen)


def _joined(old: Swap, new: Swap, here: Swap) -> Swap | None:
    """`here` with what the job changed, or None when what the job looked at is not what it was."""
    if any(getattr(here, name) != getattr(old, name) for name in _FITTED_FROM):
        return None
    changed = {name for name in Swap.model_fields if getattr(new, name) != getattr(old, name)}
    if any(getattr(here, name) != getattr(old, name) for name in changed):
        return None
    return here.model_copy(update={name: getattr(new, name) for name in changed})
