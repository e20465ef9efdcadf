"""Games: their profiles, their installs, and the stack of mods on them."""

from furnel.games.install import Archive, Install, Place
from furnel.games.profile import Profile, RoleRule, recognise, shipped_profiles
from furnel.games.stack import Clash, InstalledMod, clashes, read_order, read_stack, write_order

__all__ = [
    "Archive", "Clash", "Install", "InstalledMod", "Place", "Profile", "RoleRule", "clashes", "read_order", "read_stack",
    "recognise", "shipped_profiles", "write_order",
]  # fmt: skip
