"""A file system storage that is safe across a power cut: temporary name, sync, rename, sync the folder."""

from __future__ import annotations

import os
import secrets
import shutil
from pathlib import Path
from typing import Any

from django.core.files.base import File
from django.core.files.storage import FileSystemStorage


class OwnedFile(File):  # type: ignore[type-arg]  # not subscriptable when it runs
    """A file of ours at a path, which may be moved away instead of being copied."""

    def __init__(self, path: Path) -> None:
        super().__init__(open(path, "rb"), name=str(path))  # noqa: SIM115 - closed by whoever opened it
        self.path = path

    def hand_over(self, to: str) -> None:
        """Sync it and move it to ``to``; copied where that is another file system."""
        descriptor = os.open(self.path, os.O_RDONLY)
        try:
            os.fsync(descriptor)
        finally:
            os.close(descriptor)
        shutil.move(self.path, to)


class DurableStorage(FileSystemStorage):
    """Writes a file so that its final name never shows half a content; an existing name is left as it is."""

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        """The name itself: names are hashes of the content, so what is there already is the same."""
        return name

    def _save(self, name: str, content: File[Any]) -> str:
        final = self.path(name)
        folder = os.path.dirname(final)
        os.makedirs(folder, exist_ok=True)
        temporary = f"{final}.{secrets.token_hex(6)}.part"
        try:
            if isinstance(content, OwnedFile):
                content.hand_over(temporary)
            else:
                with open(temporary, "wb") as target:
                    for chunk in content.chunks():
                        target.write(chunk)
                    target.flush()
                    os.fsync(target.fileno())
            os.replace(temporary, final)
        except BaseException:
            if os.path.exists(temporary):
                os.unlink(temporary)
            raise
        descriptor = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(descriptor)
        finally:
            os.close(descriptor)
        return name
