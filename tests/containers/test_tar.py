"""TAR archives made and read by Python's own module, in every format and packing."""

from __future__ import annotations

import bz2
import gzip
import io
import lzma
import tarfile
from pathlib import Path
from typing import Any

import pytest
import zstandard

from furnel.cli import main
from furnel.containers import Changes, find_layout, open_container, write_archive
from furnel.errors import FurnelError

FILES = {
    "art/a.txt": b"gull" * 300,
    "b.bin": bytes(range(256)) * 5,
    "deep/" + "x" * 120 + "/long name.txt": b"far",
    "empty": b"",
}
PACKED = {".tar": "", ".tar.gz": "gz", ".tgz": "gz", ".tar.bz2": "bz2", ".tar.xz": "xz"}


def made(file: Path, form: int = tarfile.PAX_FORMAT, before: str = "") -> None:
    kind = PACKED[
        ".tar"
        if file.suffix == ".tar"
        else "".join(file.suffixes[-2:])
        if ".tar" in file.suffixes
        else file.suffix
    ]
    with tarfile.open(file, f"w:{kind}", format=form) as archive:  # type: ignore[call-overload]
        folder = tarfile.TarInfo(before + "art")
        folder.type = tarfile.DIRTYPE
        archive.addfile(folder)
        for name, data in FILES.items():
            info = tarfile.TarInfo(before + name)
            info.size, info.mtime, info.mode, info.uname = len(data), 1234567, 0o640, "keeper"
            archive.addfile(info, io.BytesIO(data))
        link = tarfile.TarInfo(before + "link")
        link.type, link.linkname = tarfile.SYMTYPE, "b.bin"
        archive.addfile(link)


def found(file: Path) -> tuple[dict[str, bytes], list[str]]:
    with tarfile.open(file) as archive:
        files = {
            one.name.removeprefix("./"): archive.extractfile(one).read() for one in archive if one.isreg()
        }  # type: ignore[union-attr]
        return files, [one.name for one in archive if not one.isreg()]


@pytest.mark.parametrize("form", [tarfile.USTAR_FORMAT, tarfile.GNU_FORMAT, tarfile.PAX_FORMAT])
@pytest.mark.parametrize("ending", PACKED)
@pytest.mark.parametrize("before", ["", "./"])
def test_changes_are_what_another_reader_finds(tmp_path: Path, form: int, ending: str, before: str) -> None:
    file, out = tmp_path / f"a{ending}", tmp_path / f"b{ending}"
    made(file, form, before)
    container = open_container(file)
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    container.rewrite(out, Changes())
    assert out.read_bytes() == file.read_bytes()
    changes = Changes(
        {"b.bin": b"much longer than before" * 90},
        {"new/ö.txt": b"new"},
        frozenset({"empty"}),
        {"art/a.txt": "art/first.txt"},
    )
    container.rewrite(out, changes)
    container.close()
    files, others = found(out)
    wanted = {name: data for name, data in FILES.items() if name not in ("empty", "art/a.txt")}
    assert files == wanted | {
        "b.bin": b"much longer than before" * 90,
        "new/ö.txt": b"new",
        "art/first.txt": FILES["art/a.txt"],
    }
    assert [name.removeprefix("./") for name in others] == ["art", "link"]
    with tarfile.open(out) as archive:
        kept = archive.getmember(f"{before}b.bin")
        assert (kept.mtime, kept.mode, kept.uname) == (1234567, 0o640, "keeper")


def test_untouched_members_stay_to_the_byte(tmp_path: Path) -> None:
    made(tmp_path / "a.tar")
    with tarfile.open(tmp_path / "a.tar") as archive:
        second = archive.getmember("b.bin")
        span = second.offset, second.offset_data + 1536
    container = open_container(tmp_path / "a.tar")
    container.rewrite(tmp_path / "b.tar", Changes({"empty": b"no more"}))
    assert (tmp_path / "b.tar").read_bytes()[slice(*span)] == (tmp_path / "a.tar").read_bytes()[slice(*span)]


def test_new_ones_are_the_same_bytes_every_time_and_are_taken_back_in_archives(tmp_path: Path) -> None:
    for name in ("a.tar", "b.tar", "c.tar.zst", "d.tar.xz"):
        write_archive(tmp_path / name, FILES, None)
    assert (tmp_path / "a.tar").read_bytes() == (tmp_path / "b.tar").read_bytes() and found(
        tmp_path / "d.tar.xz"
    )[0] == FILES
    again = open_container(tmp_path / "c.tar.zst")
    assert {entry.path: again.read(entry.path) for entry in again.entries()} == FILES


def test_what_does_harm_or_is_damaged_is_refused(tmp_path: Path) -> None:
    for name in ("../out.txt", "/etc/out.txt", "a/../../b"):
        with tarfile.open(tmp_path / "bad.tar", "w") as archive:
            archive.addfile(tarfile.TarInfo(name))
        with pytest.raises(FurnelError, match="not safe"):
            open_container(tmp_path / "bad.tar")
    made(tmp_path / "a.tar.gz")
    data = (tmp_path / "a.tar.gz").read_bytes()
    (tmp_path / "a.tar.gz").write_bytes(data[: len(data) // 2])
    with pytest.raises(FurnelError, match=r"damaged|too soon"):
        open_container(tmp_path / "a.tar.gz")
    made(tmp_path / "a.tar")
    whole = (tmp_path / "a.tar").read_bytes()
    for cut in range(600, len(whole), 700):
        (tmp_path / "a.tar").write_bytes(whole[:cut])
        try:
            container = open_container(tmp_path / "a.tar")
            for entry in container.entries():
                container.read(entry.path)
        except FurnelError:
            continue


def test_archives_are_listed_and_changed_on_the_command_line(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    made(tmp_path / "a.tar")
    new = tmp_path / "new.txt"
    new.write_text("written anew")
    out = tmp_path / "b.tar"
    assert main(["list", str(tmp_path / "a.tar"), "--json"]) == 0
    assert '"art/a.txt"' in capsys.readouterr().out
    asked = [
        "change",
        str(tmp_path / "a.tar"),
        "--replace",
        f"b.bin={new}",
        "--add",
        f"c.txt={new}",
        "--remove",
        "empty",
        "--rename",
    ]
    assert main([*asked, "art/a.txt=z.txt", "--out", str(out)]) == 0
    files, _ = found(out)
    assert (
        files["b.bin"] == files["c.txt"] == b"written anew"
        and "empty" not in files
        and files["z.txt"] == FILES["art/a.txt"]
    )
    write_archive(tmp_path / "k.crate", {"a.txt": b"one", "b.txt": b"two"}, find_layout("crate"))
    assert (
        main(
            [
                "change",
                str(tmp_path / "k.crate"),
                "--replace",
                f"a.txt={new}",
                "--out",
                str(tmp_path / "l.crate"),
            ]
        )
        == 0
    )
    assert open_container(tmp_path / "l.crate").read("a.txt") == b"written anew"
    assert main(["change", str(out), "--remove", "nothing", "--out", str(tmp_path / "x.tar")]) == 2
    assert main(["change", str(out), "--remove", "c.txt", "--out", str(out)]) == 2
    assert (
        main(["change", str(out), "--out", str(tmp_path / "x.tar")]) == 2
        and not (tmp_path / "x.tar").exists()
    )


def test_what_is_said_of_a_file_is_short(tmp_path: Path) -> None:
    """It would be read into memory."""
    member = tarfile.TarInfo("PaxHeader")
    member.type, member.size = tarfile.XHDTYPE, 8 << 20
    (tmp_path / "a.tar").write_bytes(member.tobuf() + bytes(9 << 20))
    with pytest.raises(FurnelError, match="are said of the file behind it"):
        open_container(tmp_path / "a.tar")


@pytest.mark.parametrize("ending", ["gz", "bz2", "xz"])
def test_a_packing_in_several_streams_is_read_to_its_end(tmp_path: Path, ending: str) -> None:
    made(tmp_path / "a.tar")
    packs: dict[str, Any] = {"gz": gzip.compress, "bz2": bz2.compress, "xz": lzma.compress}
    pieces = (tmp_path / "a.tar").read_bytes()[:1500], (tmp_path / "a.tar").read_bytes()[1500:]
    (tmp_path / f"b.tar.{ending}").write_bytes(b"".join(packs[ending](piece) for piece in pieces))
    container = open_container(tmp_path / f"b.tar.{ending}")
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    container.close()


def test_a_cut_zstandard_stream_is_no_whole_archive(tmp_path: Path) -> None:
    made(tmp_path / "a.tar")
    packed = zstandard.ZstdCompressor().compress((tmp_path / "a.tar").read_bytes())
    (tmp_path / "a.tar.zst").write_bytes(packed[:-5])
    with pytest.raises(FurnelError, match="damaged"):
        open_container(tmp_path / "a.tar.zst")
