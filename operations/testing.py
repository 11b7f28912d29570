"""Every check and test, side by side where they do not disturb each other; ends with one line of counts."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from operations import install
from operations.database import Database
from operations.install import say


@dataclass(frozen=True)
class Check:
    """A check that passes when its command does."""

    name: str
    words: list[str]
    folder: Path


def run_tests(home: Path, labels: list[str]) -> int:
    """Run everything, or only some test modules; returns the exit code."""
    npm = install.front_end(home)
    fast = Path("/dev/shm")
    base = fast if os.access(fast, os.W_OK) else None
    place = Path(tempfile.mkdtemp(prefix="coatpeg-test-", dir=base))
    database = Database(place / "db", relaxed=True)
    environment = {
        **npm,
        **database.environment(),
        "COATPEG_VAR": str(place / "var"),
        "COATPEG_SECRET": "only for tests",
        "COATPEG_DEMO": "1",
        "DJANGO_SETTINGS_MODULE": "tests.settings",
        "DJANGO_ALLOW_ASYNC_UNSAFE": "true",
        "PYTHONPATH": str(home),
    }
    for name in ("incoming", "files"):
        (place / "var" / name).mkdir(parents=True)
    try:
        database.start()
        checks = [] if labels else _checks(home)
        passed = _run_checks(checks, environment)
        ran, failed = _django(home, labels, environment)
    finally:
        database.stop()
        shutil.rmtree(place, ignore_errors=True)
    broken = len(checks) - passed
    passed, failed = passed + max(ran - failed, 0), failed + broken
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed or not ran else 0


def _checks(home: Path) -> list[Check]:
    """Style, types, the direction of imports, and that generated things are current."""
    python, frontend = sys.executable, home / "frontend"
    tool = str(Path(python).parent)
    return [
        Check("ruff", [f"{tool}/ruff", "check", "."], home),
        Check("ruff format", [f"{tool}/ruff", "format", "--check", "."], home),
        Check("mypy", [f"{tool}/mypy", "coatpeg", "demo", "operations"], home),
        Check("imports", [f"{tool}/lint-imports"], home),
        Check("migrations", [python, "manage.py", "makemigrations", "--check", "--dry-run"], home),
        Check("openapi", [python, "-m", "operations.openapi", "--check"], home),
        Check("typescript", ["npm", "run", "--silent", "types"], frontend),
        Check("eslint", ["npm", "run", "--silent", "lint"], frontend),
    ]


def _run_checks(checks: list[Check], environment: dict[str, str]) -> int:
    """Run the checks two at a time; prints what failed; returns how many passed."""

    def run(check: Check) -> bool:
        begun = time.monotonic()
        done = subprocess.run(check.words, cwd=check.folder, env=environment, capture_output=True, text=True)
        say(f"{'ok  ' if done.returncode == 0 else 'FAIL'} {check.name} ({time.monotonic() - begun:.0f} s)")
        if done.returncode:
            say(done.stdout + done.stderr)
        return done.returncode == 0

    with ThreadPoolExecutor(2) as pool:
        return sum(pool.map(run, checks))


def _django(home: Path, labels: list[str], environment: dict[str, str]) -> tuple[int, int]:
    """Django's own test runner; returns how many tests ran and how many of them failed."""
    words = [
        sys.executable,
        "-W",
        "error",
        "-W",
        "ignore::ResourceWarning",
        "manage.py",
        "test",
        *(labels or ["tests"]),
    ]
    # One more than two cores: a browser test waits for its pages much of its time.
    words += ["--parallel", "3"] if not labels else []
    with tempfile.TemporaryFile("w+") as kept:
        child = subprocess.Popen(
            words, cwd=home, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
        )
        assert child.stdout is not None
        for line in child.stdout:
            print(line, end="", flush=True)
            kept.write(line)
        child.wait()
        kept.seek(0)
        return counts(kept.read(), child.returncode)


def counts(output: str, code: int) -> tuple[int, int]:
    """How many tests ran and failed, from the runner's closing lines; a runner that died counts as one failure.

    Skipped and unexpectedly passing tests count as failures: there is no test that may not pass.
    """
    ran = re.findall(r"^Ran (\d+) tests? in", output, re.MULTILINE)
    closing = re.findall(r"^FAILED \((.+)\)$|^OK \((.+)\)$", output, re.MULTILINE)
    failed = 0
    for pair in closing[-1:]:
        for part in (pair[0] or pair[1]).split(", "):
            name, _, number = part.partition("=")
            if name in ("failures", "errors", "skipped", "unexpected successes"):
                failed += int(number)
    if code and not failed:
        failed = 1
    return int(ran[-1]) if ran else 0, failed
