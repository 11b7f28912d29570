"""Documents that LibreOffice reads for us: made into a PDF or a workbook, in a profile that is thrown away.

Debian's ``libreoffice-writer-nogui`` and its like (Impress, Calc). Where it is not installed such files are offered as
they are. Decided here: macros are off whatever a document says, and what a document links to is not fetched; measured,
a presentation takes 700 MB of address space and four seconds, most of it for the fresh profile.
"""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

LONGEST = 90
"""Seconds on the wall for one document."""
_SETTINGS = """<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry">
<item oor:path="/org.openoffice.Office.Common/Security/Scripting">
<prop oor:name="DisableMacrosExecution" oor:op="fuse"><value>true</value></prop>
<prop oor:name="MacroSecurityLevel" oor:op="fuse"><value>3</value></prop>
<prop oor:name="BlockUntrustedRefererLinks" oor:op="fuse"><value>true</value></prop>
<prop oor:name="DisableActiveContent" oor:op="fuse"><value>true</value></prop>
</item>
</oor:items>
"""


def program() -> str | None:
    """LibreOffice's program, or None where it is not installed."""
    return shutil.which("soffice")


def converted(source: Path, form: str, folder: Path) -> Path | None:
    """A document as ``pdf`` or ``xlsx``, in a folder of ours; None where LibreOffice makes nothing of it."""
    found = program()
    if found is None:
        return None
    profile, out = folder / "profile", folder / "office"
    (profile / "user").mkdir(parents=True)
    (profile / "user" / "registrymodifications.xcu").write_text(_SETTINGS)
    words = [
        found,
        "--headless",
        "--norestore",
        "--nolockcheck",
        "--nodefault",
        f"-env:UserInstallation=file://{profile}",
        "--convert-to",
        form,
        "--outdir",
        str(out),
        str(source),
    ]
    try:
        subprocess.run(words, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, timeout=LONGEST, check=False)
    except subprocess.TimeoutExpired:
        return None
    made = out / f"{source.stem}.{form}"
    return made if made.exists() else None
