"""The one router of this room: two operations at one address must stand in the same router."""

from __future__ import annotations

from ninja import Router

router = Router(tags=["hand-ins"])
