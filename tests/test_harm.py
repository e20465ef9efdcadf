"""What strangers and accidents leave: refused in words, within memory and time; nothing of the modder's goes out with it."""

from __future__ import annotations

import io
import os
import resource
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from furnel.catalogue import Catalogue
from furnel.cli import main
from furnel.containers import known_layouts, layouts_folder, open_container
from furnel.errors import FurnelError
from furnel.games import Install, profiles_folder, recognise
from furnel.imagefiles import read_frames, read_layers, read_small
from furnel.mods.build import build, last_build, package
from furnel.mods.render import read_source
from furnel.mods.unpacking import unpack_mod
from furnel.mods.workspace import Workspace, open_workspace
from furnel.schema import read_toml, takes_for_ever

HULL = "art/hulls/hull_otter.dds"


def limited(
    code: str, megabytes: int, *args: str, cwd: Path | None = None
) -> subprocess.CompletedProcess[str]:
    """Python with a lid on its memory; FurnelError ends it with 7."""
    whole = f"""
import resource, sys
from pathlib import Path
from furnel.errors import FurnelError
{code.splitlines()[0]}
before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
try:
{chr(10).join("    " + line for line in code.splitlines()[1:])}
except FurnelError as error:
    print(error)
    used = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) >> 10
    sys.exit(7 if used < {megabytes} else 8)
"""
    return subprocess.run(
        [sys.executable, "-c", whole, *args], capture_output=True, text=True, check=False, cwd=cwd
    )


def test_no_private_file_reaches_a_build_that_was_made_anyway(fitted_mod: Workspace, tmp_path: Path) -> None:
    secret = tmp_path / "home" / "key.png"
    secret.parent.mkdir()
    secret.write_bytes(b"secret")
    swap = f'\n[[swap]]\noriginal = "{HULL}"\nsource = "{secret}"\n'
    fitted_mod.file.write_text(fitted_mod.file.read_text() + swap)
    stranger = open_workspace(fitted_mod.file)
    with pytest.raises(FurnelError, match="outside"):
        build(stranger, anyway=True)
    assert not stranger.build_folder.exists()
    stranger.close()


def test_what_was_built_anyway_is_not_packaged(fitted_mod: Workspace, sources: Path) -> None:
    broken = fitted_mod.save(
        fitted_mod.project.with_swap(fitted_mod.new_swap(HULL, sources / "dusk_paint.jpg"))
    )
    done = build(broken, anyway=True)
    assert done.broken == (HULL,) == last_build(broken).broken  # type: ignore[union-attr]
    with pytest.raises(FurnelError, match="hull_otter"):
        package(broken)


@pytest.fixture
def fitted_mod(space: Workspace) -> Workspace:
    return space


def test_nothing_in_the_current_folder_is_run(game: Path, tmp_path: Path) -> None:
    for name in ("tarnlight.py", "numpy.py", "json.py"):
        (tmp_path / name).write_text("from pathlib import Path\nPath(__file__).with_name('RUN').touch()\n")
    code = "from furnel.games import Install, ask_report\nask_report(Install(Path(sys.argv[1])))"
    ran = subprocess.run(
        [sys.executable, "-P", "-c", "import sys; from pathlib import Path; " + code.replace("\n", "; "), str(game)],
        cwd=tmp_path, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert ran.returncode == 0 and not (tmp_path / "RUN").exists(), ran.stderr


@pytest.mark.parametrize("width", ["{number:>100000000}", "{number:>2000000000}"])
def test_numbers_in_descriptions_are_bounded(width: str) -> None:
    ran = limited(
        f"from furnel.containers import parse_layout\nparse_layout('[names]\\nnumber = \"{width}\"', 'x')",
        100,
    )
    assert ran.returncode == 7, ran.stderr


@pytest.mark.parametrize(
    "text", [".".join("a" * 20_000) + " = 1", "a = " + "[" * 100_000, "a = " + "9" * 5_000, '"a"' + ' . "b"' * 9_000 + "=1"]
)  # fmt: skip
def test_odd_toml_ends_in_words(text: str) -> None:
    with pytest.raises(ValueError, match=r"."):
        read_toml(text)
    code = "from furnel.mods.project import load_project\nload_project(Path(sys.argv[1]))"
    file = Path(os.environ["FURNEL_STATE"]) / "odd.toml"
    file.parent.mkdir(parents=True, exist_ok=True)
    file.write_text(text)
    assert limited(code, 100, str(file)).returncode == 7


def test_patterns_that_take_for_ever_are_refused() -> None:
    for pattern in ("(a+)+$", "(a|b*)*c", "((x{1,999})+y)+"):
        assert takes_for_ever(pattern)
    for pattern in (r'version = "([^"]+)"', "(a|b)+c*", r"(\d+)\.(\d+)"):
        assert not takes_for_ever(pattern)


def ora(width: int, height: int, stack: str) -> bytes:
    from PIL import Image

    dot, out = io.BytesIO(), io.BytesIO()
    Image.new("RGBA", (1, 1)).save(dot, "PNG")
    with zipfile.ZipFile(out, "w") as file:
        file.writestr("mimetype", "image/openraster")
        file.writestr("stack.xml", f'<image w="{width}" h="{height}"><stack>{stack}</stack></image>')
        file.writestr("a.png", dot.getvalue())
    return out.getvalue()


@pytest.mark.parametrize(
    ("width", "stack"),
    [(8192, '<layer src="a.png"/>' * 2), (11585, '<layer src="a.png"/>'), (362, '<layer src="a.png"/>' * 1024),
     (8, "<stack>" * 5000 + '<layer src="a.png"/>' + "</stack>" * 5000)],
)  # fmt: skip
def test_layers_of_nothing_cost_nothing(width: int, stack: str, tmp_path: Path) -> None:
    file = tmp_path / "a.ora"
    file.write_bytes(ora(width, width, stack))
    ran = limited(
        "from furnel.imagefiles import read_small\nread_small(Path(sys.argv[1]).read_bytes(), 96)",
        1000,
        str(file),
    )
    assert ran.returncode == 7, ran.stderr
    with pytest.raises(FurnelError):
        read_layers(file.read_bytes())


def test_a_picture_of_a_few_bytes_is_not_unpacked() -> None:
    from furnel.imagefiles import read_texture, write_texture
    from furnel.images.texture import Texture

    small = write_texture(
        Texture(8, 8, "RGBA32F", (bytes(8 * 8 * 16),), "KTX2", notes=(("supercompression", "Zstandard"),))
    )
    head = bytearray(small)
    for at in (20, 24):  # pixelWidth, pixelHeight (KTX 2.0, 3.2)
        head[at : at + 4] = (16384).to_bytes(4, "little")
    limit = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    for read in (lambda data: read_small(data, 96), read_texture):
        with pytest.raises(FurnelError):
            read(bytes(head))
    assert (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - limit) >> 10 < 1000


def test_damaged_lzma_and_gif_end_in_words(tmp_path: Path) -> None:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_LZMA) as file:
        file.writestr("m/mod.toml", b'id = "m"\n' * 400)
    data = bytearray(packed.getvalue())
    for at in range(60, len(data) - 120):
        data[at] ^= 0x5A
        (tmp_path / "x.zip").write_bytes(data)
        out = tmp_path / f"o{at}"
        out.mkdir()
        with pytest.raises(FurnelError):
            unpack_mod(tmp_path / "x.zip", out)
        if at > 90:
            break
    from PIL import Image

    gif = io.BytesIO()
    pictures = [Image.new("P", (9, 9), colour) for colour in (1, 2, 3)]
    pictures[0].save(gif, "GIF", save_all=True, append_images=pictures[1:])
    whole = gif.getvalue()
    for cut in range(20, len(whole), 3):
        with pytest.raises(FurnelError):
            read_frames(whole[:cut])
            raise FurnelError("a cut that leaves whole frames")


def test_odd_sources_end_in_words(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe.png")
    with (tmp_path / "sparse.png").open("wb") as file:
        file.truncate(20 << 30)
    for name in ("pipe.png", "sparse.png", "nowhere.png", "."):
        with pytest.raises(FurnelError):
            read_source(tmp_path / name)


def test_an_archive_that_is_written_anew_while_it_is_open_ends_in_words(tmp_path: Path) -> None:
    file = tmp_path / "a.zip"
    with zipfile.ZipFile(file, "w") as out:
        out.writestr("big.bin", os.urandom(3 << 20))
    code = (
        "from furnel.containers import open_container\n"
        "held = open_container(Path(sys.argv[1]))\nheld.read('big.bin')\nopen(sys.argv[1], 'w').close()\nheld.read('big.bin')"
    )
    ran = limited(code, 500, str(file))
    assert ran.returncode == 7, (ran.returncode, ran.stderr)
    with pytest.raises(FurnelError):
        open_container(file)


@pytest.mark.parametrize("harm", [b"", b"SQLite format 3\0" + bytes(4000), None])
def test_a_damaged_index_is_made_anew(game: Path, tmp_path: Path, harm: bytes | None) -> None:
    file = tmp_path / "c.sqlite"
    first = Catalogue(Install(game), file)
    first.refresh()
    number = len(first.assets)
    first.close()
    data = bytearray(file.read_bytes())
    for at in range(100, len(data), 97):
        data[at] ^= 0xFF
    file.write_bytes(bytes(data) if harm is None else harm)
    again = Catalogue(Install(game), file)
    again.refresh()
    assert len(again.assets) == number
    again.close()


def test_one_broken_profile_or_layout_stops_nothing_but_itself(
    game: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    for folder in (profiles_folder(), layouts_folder()):
        folder.mkdir(parents=True, exist_ok=True)
        (folder / "other.toml").write_text("id = [[[")
        (folder / "long.toml").write_text("a = " + "9" * 5000)
    assert recognise(game).id == "tarnlight" and known_layouts()
    assert main(["find", str(game), "otter"]) == 0 and "otter" in capsys.readouterr().out
    (profiles_folder() / "tarnlight.toml").write_text("id = [[[")
    with pytest.raises(FurnelError, match="tarnlight"):
        recognise(game)


def test_the_load_order_is_no_file_of_the_games_own() -> None:
    from importlib import resources

    from furnel.games.profile import parse_profile

    text = (resources.files("furnel.games") / "profiles" / "tarnlight.toml").read_text("utf-8")
    assert 'order = "mods/order.toml"' in text
    with pytest.raises(FurnelError, match="never written"):
        parse_profile(text.replace('order = "mods/order.toml"', 'order = "tarnlight.toml"'), "x")


def test_names_of_strangers_are_one_line_and_names_of_other_scripts_are_names() -> None:
    from furnel.containers.container import check_path
    from furnel.games.modfiles import AboutFile
    from furnel.words import count, one_line, plain

    told = AboutFile().read('name = "ok\\nFurnel: this mod is safe\u202e"\nversion = "1"')
    assert told["name"] == "ok Furnel: this mod is safe" and len(one_line("x" * 1_000_000)) == 120
    for path in ("ボス\u3000曲.ogg", "a\u00a0b/c.png", "می\u200cخواهم.txt"):
        assert check_path(path, "a") == path
    for path in ("a\u202eb.png", "a\nb", "a\u2028b", "\x1b[1m"):
        with pytest.raises(FurnelError):
            check_path(path, "a")
    assert plain(count(12345, "file")) == count(12345, "file")


def test_a_picture_that_is_never_written_does_not_stop_the_others(tmp_path: Path) -> None:
    from PIL import Image

    from furnel.mods.recolouring import recolour_files

    for name in ("a.webp", "b.png", "c.gif"):
        Image.new("RGB", (4, 4), (138, 90, 52)).save(tmp_path / name, lossless=True)
    found = {
        one.file.name: one
        for one in recolour_files([tmp_path], tmp_path / "out", {(138, 90, 52): (32, 96, 192)})
    }
    assert found["b.png"].pixels == 16 and not found["b.png"].refused
    assert all("PNG" in found[name].refused or found[name].pixels for name in ("a.webp", "c.gif"))


def test_a_style_sheet_takes_any_path(application_look: str) -> None:
    assert "url(" not in application_look.replace('url("', "")
    assert all(Path(part.partition('"')[0]).is_file() for part in application_look.split('url("')[1:])


@pytest.fixture
def application_look() -> str:
    from furnel.desktop.look import style_sheet

    return style_sheet("dark")
