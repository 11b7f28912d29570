"""The OpenAPI document and the types made from it: written anew, or checked to be current."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

FRONTEND = Path(__file__).resolve().parents[1] / "frontend"


def write(folder: Path) -> None:
    """Write ``openapi.json`` and ``schema.gen.ts`` into a folder."""
    shown = subprocess.run(
        [sys.executable, str(FRONTEND.parent / "manage.py"), "export_openapi"],
        check=True,
        capture_output=True,
        text=True,
    )
    (folder / "openapi.json").write_text(shown.stdout)
    subprocess.run(
        [
            str(FRONTEND / "node_modules/.bin/openapi-typescript"),
            str(folder / "openapi.json"),
            "-o",
            str(folder / "schema.gen.ts"),
        ],
        check=True,
        capture_output=True,
        env=os.environ,
    )


def main() -> int:
    """Write, or with ``--check`` compare."""
    kept = {"openapi.json": FRONTEND / "openapi.json", "schema.gen.ts": FRONTEND / "src/api/schema.gen.ts"}
    with tempfile.TemporaryDirectory() as folder:
        write(Path(folder))
        for name, place in kept.items():
            fresh = (Path(folder) / name).read_text()
            if "--check" not in sys.argv:
                place.write_text(fresh)
            elif not place.exists() or place.read_text() != fresh:
                print(f"{place.name} is not current. Run: .venv/bin/python -m operations.openapi")
                return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
