"""Keeping the rule of a class's totals.

Decided here: it is kept by whoever sets hand-ins. Two who change it at once are told: the second sees the first one's
rule. What was released does not change by it: totals are staff's, and are made anew whenever they are read.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Stale
from coatpeg.core.marking.sheet import Rule
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import SheetRule
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, TeachingGroup


def change_rule(person: Person, group_id: int, rule: Rule, version: int, now: datetime) -> None:
    """Keep another rule; ``version`` is the one that was seen. ``Stale`` where it is not that any more."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        scored = HandIn.objects.filter(group_id=group_id).exclude(points=None)
        points = {pk: of for pk, of in scored.values_list("pk", "points") if of}
        rule.check(points)
        kept = SheetRule.objects.filter(group_id=group_id).first()
        if (kept.version if kept else 0) != version:
            raise Stale("The weights were changed meanwhile.", where="weights", fix="Look at them as they are now.")
        kept = kept or SheetRule(group_id=group_id)
        kept.weights = {str(handin): str(weight) for handin, weight in rule.weights.items() if handin in points}
        kept.best, kept.missing_is_zero = rule.best, rule.missing_is_zero
        kept.version, kept.person, kept.changed_at = version + 1, person, now
        kept.save()
        doing.record("sheet_changed", group_id, version=kept.version)
