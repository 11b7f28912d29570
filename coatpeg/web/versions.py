"""Which version of the application a data folder belongs to, and bringing it up to this one.

Decided here: a folder is newer where its database has had migrations that this version does not know. It is refused
before anything is touched, and the migrations are named; an older one is brought up to date, which keeps every row.
"""

from __future__ import annotations

from django.core.management import call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from coatpeg.core.errors import Refused


def unknown_migrations() -> list[str]:
    """Migrations of the database that this version does not have, by name."""
    executor = MigrationExecutor(connection)
    known = set(executor.loader.disk_migrations or ())
    replaced = {one for each in (executor.loader.disk_migrations or {}).values() for one in each.replaces}
    return sorted(
        f"{app}.{name}" for app, name in executor.loader.applied_migrations if (app, name) not in known | replaced
    )


def bring_up_to_date() -> None:
    """Migrate the database; ``Refused`` where a newer version has had it."""
    newer = unknown_migrations()
    if newer:
        raise Refused(
            f"This data folder belongs to a newer version of Coat Peg ({', '.join(newer)}). Nothing was changed.",
            where="COATPEG_VAR",
            fix="Run that version, or bring back a backup made by this one.",
        )
    call_command("migrate", verbosity=0)
