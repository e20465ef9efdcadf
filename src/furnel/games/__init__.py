"""Games: their profiles, their installs, and the stack of mods on them."""

from furnel.games.describing import Sighting, Survey, keep_profile, profile_text, survey
from furnel.games.install import Archive, Install, Place
from furnel.games.looprecord import LoopRecord
from furnel.games.profile import (
    Profile,
    RoleRule,
    UnknownGame,
    known_profiles,
    parse_profile,
    profiles_folder,
    recognise,
    shipped_profiles,
)
from furnel.games.running import (
    GameWord,
    Report,
    allow_commands,
    ask_report,
    commands_to_allow,
    draw_still,
    start_game,
)
from furnel.games.stack import (
    BRIDGE,
    Clash,
    InstalledMod,
    clashes,
    is_for_people,
    read_order,
    read_stack,
    write_order,
)

__all__ = [
    "BRIDGE",
    "Archive",
    "Clash",
    "GameWord",
    "Install",
    "InstalledMod",
    "LoopRecord",
    "Place",
    "Profile",
    "Report",
    "RoleRule",
    "Sighting",
    "Survey",
    "UnknownGame",
    "allow_commands",
    "ask_report",
    "clashes",
    "commands_to_allow",
    "draw_still",
    "is_for_people",
    "keep_profile",
    "known_profiles",
    "parse_profile",
    "profile_text",
    "profiles_folder",
    "read_order",
    "read_stack",
    "recognise",
    "shipped_profiles",
    "start_game",
    "survey",
    "write_order",
]
