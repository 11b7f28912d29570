"""Who may do what: the one table. Commands and queries ask it; nobody else compares roles.

A person acts in a role towards an object in a relation: their *own* portfolio or account, the account as a sign-in
*card* opens it, an object of a *class* they are a member of, work of a student of their *caseload*, what belongs to
the whole *school*, or something *foreign*. A role ends with its reason: who has left a class is a *leaver* there, who
reads and writes nothing; when a class is long over, its lead reads as an observer does, and other staff are strangers.
What the table does not name is refused. A person with several roles may do what any of them may.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum


class Role(StrEnum):
    """The roles; a school administrator has theirs for the installation, the others for one teaching group."""

    ADMINISTRATOR = "administrator"
    LEAD = "lead"
    CO_TEACHER = "co_teacher"
    MARKER = "marker"
    OBSERVER = "observer"
    STUDENT = "student"
    LEAVER = "leaver"


class Relation(StrEnum):
    """How the object stands to the person."""

    OWN = "own"
    CARD = "card"
    """The own account on a class device, opened by a sign-in card: one class, nothing of the account's settings."""
    CLASS = "class"
    CASELOAD = "caseload"
    SCHOOL = "school"
    """What belongs to the school as a whole: its calendar, its staff accounts, starting a class."""
    FOREIGN = "foreign"


class Action(StrEnum):
    """What can be done. The API names one for each of its operations."""

    USE_ACCOUNT = "use the account"
    CHANGE_ACCOUNT = "change what belongs to the account"
    FOLLOW_CHANGES = "follow the changes of a class"
    SEE_BOARD = "see the pegs"
    SEE_HANDINS = "see the hand-ins"
    SEE_FULL_WEEKS = "see for which students too much falls together, over all their classes"
    SET_HANDIN = "set a hand-in"
    EXCUSE = "excuse a student"
    SET_OWN_DUE = "set a student's own due date"
    REMIND = "remind students of what they owe"
    LOCK_POCKETS = "lock and open pockets"
    HAND_IN_FOR = "hand in for a student"
    SEE_PILE = "see the marking pile"
    MARK = "mark a submission"
    DECIDE_ALONE = "decide without the second marker"
    SEE_AGREEMENT = "see how far markers agree"
    SEE_PORTFOLIO = "look into a portfolio"
    SEE_WORKLIST = "see what to hand in"
    SEE_SUBMISSION = "read a submission"
    FILL_POCKET = "put work into a pocket"
    ARRANGE_PORTFOLIO = "arrange a portfolio"
    HAND_IN = "hand in"
    COMMENT = "comment on a student's work"
    ANSWER = "answer a comment on a submission"
    SEE_STAFF_NOTES = "read what staff note for themselves"
    KEEP_STAFF_NOTES = "note something for the staff"
    SEE_SHOW_PAGES = "see the show pages of a class"
    OPEN_SHOW_PAGE = "open a show page to the class"
    SEE_ROSTER = "see the class list"
    KEEP_ROSTER = "change the class list"
    SEE_STAFF = "see the staff of a class"
    KEEP_STAFF = "change the staff of a class"
    KEEP_CLASS = "rename a class, move its days, put it away, delete it"
    BRING_IN_KNOWN = "bring in a student who is known from elsewhere"
    CHOOSE_GROUP = "choose the group to work in"
    GIVE_PASSWORD = "give a student a new password"
    SEE_TEMPLATE = "see the template"
    READ_DIRECTIONS = "read what the staff give with a pocket"
    EDIT_TEMPLATE = "change the template"
    SEE_CUPBOARD = "see the cupboard"
    KEEP_CUPBOARD = "put things into the cupboard"
    GIVE_OUT = "give copies out"
    SEE_COPIES = "see who has a copy"
    SEE_SHARED = "see a page that is filled together"
    WRITE_SHARED = "write on a page that is filled together"
    LEAD_SHARED = "lead a page that is filled together"
    SEE_GALLERY = "see the gallery of templates"
    SEE_CASELOAD = "see the students of a caseload"
    SEE_ADJUSTMENTS = "see what was agreed for a student"
    KEEP_ADJUSTMENTS = "change what was agreed for a student"
    START_CLASS = "start a class"
    START_CASELOAD = "start a caseload"
    KEEP_ACCOUNTS = "keep the staff accounts"
    SEE_MAIL = "see which mail was sent"
    SEE_CALENDAR = "see the school's calendar"
    KEEP_CALENDAR = "change the school's calendar"
    KEEP_LATE_RULE = "set the school's late rule"


@dataclass(frozen=True, slots=True)
class Decision:
    """Yes, or no because."""

    allowed: bool
    because: str = ""


_SETTERS = (Role.LEAD, Role.CO_TEACHER)
_MARKERS = (*_SETTERS, Role.MARKER)
_STAFF = (*_MARKERS, Role.OBSERVER)

_ROLES_IN_CLASS: dict[Action, tuple[Role, ...]] = {
    Action.FOLLOW_CHANGES: (*_STAFF, Role.STUDENT),
    Action.SEE_BOARD: _STAFF,
    Action.SEE_HANDINS: _STAFF,
    Action.SEE_FULL_WEEKS: (Role.OBSERVER,),
    Action.SET_HANDIN: _SETTERS,
    Action.EXCUSE: _SETTERS,
    Action.SET_OWN_DUE: _SETTERS,
    Action.REMIND: _SETTERS,
    Action.LOCK_POCKETS: _SETTERS,
    Action.HAND_IN_FOR: _SETTERS,
    Action.SEE_PILE: _MARKERS,
    Action.MARK: _MARKERS,
    Action.DECIDE_ALONE: (Role.LEAD,),
    Action.SEE_AGREEMENT: _MARKERS,
    Action.SEE_PORTFOLIO: _STAFF,
    Action.SEE_SUBMISSION: _STAFF,
    Action.SEE_ROSTER: _STAFF,
    Action.KEEP_ROSTER: _SETTERS,
    Action.CHOOSE_GROUP: (Role.STUDENT,),
    Action.SEE_STAFF: _STAFF,
    Action.SEE_TEMPLATE: _STAFF,
    Action.READ_DIRECTIONS: (*_STAFF, Role.STUDENT, Role.LEAVER),
    Action.EDIT_TEMPLATE: _SETTERS,
    Action.SEE_CUPBOARD: (*_STAFF, Role.STUDENT, Role.LEAVER),
    Action.KEEP_CUPBOARD: _SETTERS,
    Action.GIVE_OUT: _SETTERS,
    Action.SEE_COPIES: _STAFF,
    Action.SEE_SHARED: _STAFF,
    Action.WRITE_SHARED: (),
    Action.LEAD_SHARED: _SETTERS,
    Action.SEE_CASELOAD: _SETTERS,
    Action.SEE_ADJUSTMENTS: _SETTERS,
    Action.KEEP_ADJUSTMENTS: (),
    Action.BRING_IN_KNOWN: (Role.LEAD,),
    Action.GIVE_PASSWORD: (Role.LEAD,),
    Action.KEEP_STAFF: _SETTERS,
    Action.KEEP_CLASS: (Role.LEAD,),
    Action.COMMENT: _MARKERS,
    Action.ANSWER: _MARKERS,
    Action.SEE_STAFF_NOTES: _STAFF,
    Action.KEEP_STAFF_NOTES: _MARKERS,
    Action.SEE_SHOW_PAGES: (*_STAFF, Role.STUDENT),
    Action.OPEN_SHOW_PAGE: _SETTERS,
    Action.SEE_WORKLIST: (),
    Action.FILL_POCKET: (),
    Action.ARRANGE_PORTFOLIO: (),
    Action.HAND_IN: (),
}
_ROLES_IN_SCHOOL: dict[Action, tuple[Role, ...]] = {
    Action.SEE_CALENDAR: (Role.ADMINISTRATOR, *_STAFF),
    Action.KEEP_CALENDAR: (Role.ADMINISTRATOR,),
    Action.KEEP_LATE_RULE: (Role.ADMINISTRATOR,),
    Action.SEE_GALLERY: (Role.ADMINISTRATOR, *_STAFF),
    Action.START_CLASS: (Role.ADMINISTRATOR, *_STAFF),
    Action.START_CASELOAD: (Role.ADMINISTRATOR,),
    Action.KEEP_ACCOUNTS: (Role.ADMINISTRATOR,),
    Action.BRING_IN_KNOWN: (Role.ADMINISTRATOR,),
    Action.GIVE_PASSWORD: (Role.ADMINISTRATOR,),
    Action.SEE_MAIL: (Role.ADMINISTRATOR,),
}
_OF_ONES_OWN = frozenset(
    {
        Action.SEE_PORTFOLIO,
        Action.SEE_WORKLIST,
        Action.SEE_SUBMISSION,
        Action.FILL_POCKET,
        Action.ARRANGE_PORTFOLIO,
        Action.HAND_IN,
        Action.ANSWER,
        Action.SEE_SHARED,
        Action.WRITE_SHARED,
    }
)
_READ_OF_ONES_OWN = frozenset({Action.SEE_SHARED, Action.SEE_PORTFOLIO, Action.SEE_WORKLIST, Action.SEE_SUBMISSION})
_IN_CASELOAD = frozenset(
    {
        Action.SEE_SHARED,
        Action.SEE_PORTFOLIO,
        Action.SEE_SUBMISSION,
        Action.SEE_ADJUSTMENTS,
        Action.KEEP_ADJUSTMENTS,
        Action.COMMENT,
        Action.SEE_STAFF_NOTES,
        Action.KEEP_STAFF_NOTES,
    }
)

OF_CASELOAD = frozenset(
    {
        Action.FOLLOW_CHANGES,
        Action.SEE_CASELOAD,
        Action.SEE_ROSTER,
        Action.KEEP_ROSTER,
        Action.SEE_STAFF,
        Action.KEEP_STAFF,
    }
)
"""What there is to do in a caseload itself: it has no portfolios, template or hand-ins of its own."""

TABLE: frozenset[tuple[Action, Role, Relation]] = frozenset(
    {(action, role, Relation.OWN) for role in Role for action in (Action.USE_ACCOUNT, Action.CHANGE_ACCOUNT)}
    | {(Action.USE_ACCOUNT, Role.STUDENT, Relation.CARD)}
    | {(action, role, Relation.CLASS) for action, roles in _ROLES_IN_CLASS.items() for role in roles}
    | {(action, role, Relation.SCHOOL) for action, roles in _ROLES_IN_SCHOOL.items() for role in roles}
    | {(action, Role.STUDENT, Relation.OWN) for action in _OF_ONES_OWN}
    | {(action, Role.LEAVER, Relation.OWN) for action in _READ_OF_ONES_OWN}
    | {(action, role, Relation.CASELOAD) for action in _IN_CASELOAD for role in _SETTERS}
)
"""Every (action, role, relation) that is allowed."""

_BECAUSE: dict[Action, str] = {
    Action.SET_HANDIN: "Only the lead and co-teachers of the class set hand-ins.",
    Action.EXCUSE: "Only the lead and co-teachers of the class excuse a student.",
    Action.SET_OWN_DUE: "Only the lead and co-teachers of the class set a student's own date.",
    Action.REMIND: "Only the lead and co-teachers of the class remind its students.",
    Action.LOCK_POCKETS: "Only the lead and co-teachers of the class lock pockets and open them.",
    Action.HAND_IN_FOR: "Only the lead and co-teachers of the class hand in for a student.",
    Action.SEE_PILE: "The marking pile is for the class's lead, co-teachers and markers.",
    Action.MARK: "Only the class's lead, co-teachers and markers mark submissions.",
    Action.DECIDE_ALONE: "Only a lead of the class decides without the second marker.",
    Action.SEE_AGREEMENT: "How far markers agree is for the class's lead, co-teachers and markers.",
    Action.ARRANGE_PORTFOLIO: "Only the student arranges their own portfolio.",
    Action.FILL_POCKET: "Only the student puts work into their own portfolio.",
    Action.WRITE_SHARED: "Only the students who fill a page together write on it.",
    Action.LEAD_SHARED: "Only the lead and co-teachers of the class lead a page that is filled together.",
    Action.HAND_IN: "Only the student hands in their own work.",
    Action.COMMENT: "Only the class's lead, co-teachers and markers, and the student's caseload, comment on work.",
    Action.ANSWER: "Comments on a submission are answered by its student and whoever marks in the class.",
    Action.SEE_STAFF_NOTES: "What staff note for themselves is for the staff.",
    Action.KEEP_STAFF_NOTES: "Only the class's lead, co-teachers and markers, and the caseload, note something.",
    Action.OPEN_SHOW_PAGE: "Only the lead and co-teachers of the class open a show page to it.",
    Action.SEE_WORKLIST: "What to hand in is shown to the student it is for.",
    Action.SEE_BOARD: "The pegs are for the staff of the class.",
    Action.SEE_HANDINS: "The list of hand-ins is for the staff of the class.",
    Action.SEE_ROSTER: "The class list is for the staff of the class.",
    Action.KEEP_ROSTER: "Only the lead and co-teachers of the class change its list.",
    Action.CHOOSE_GROUP: "Only the students of the class choose their group.",
    Action.SEE_STAFF: "The staff of a class is shown to its staff.",
    Action.SEE_TEMPLATE: "The template is for the staff of the class.",
    Action.EDIT_TEMPLATE: "Only the lead and co-teachers of the class change its template.",
    Action.KEEP_CUPBOARD: "Only the lead and co-teachers of the class put things into its cupboard.",
    Action.GIVE_OUT: "Only the lead and co-teachers of the class give copies out.",
    Action.SEE_COPIES: "Who has a copy is for the staff of the class.",
    Action.SEE_GALLERY: "The gallery is for the staff.",
    Action.SEE_CASELOAD: "A caseload is seen by its lead and co-teachers.",
    Action.SEE_ADJUSTMENTS: "What was agreed for a student is for the coordinator and the leads.",
    Action.KEEP_ADJUSTMENTS: "Only the student's learning-support coordinator changes what was agreed.",
    Action.KEEP_STAFF: "Only the lead and co-teachers of the class change its staff.",
    Action.KEEP_CLASS: "Only the lead of the class renames it, moves its days and puts it away.",
    Action.CHANGE_ACCOUNT: "A sign-in card opens one class. For the rest of the account sign in by name.",
    Action.BRING_IN_KNOWN: "Only an administrator, or a lead who has the student already, says that they come in.",
    Action.GIVE_PASSWORD: "Only an administrator, or a lead of every class the student is in, gives a new password.",
    Action.START_CLASS: "Only members of staff start a class.",
    Action.START_CASELOAD: "Only a school administrator starts a caseload: its staff see work in all classes.",
    Action.KEEP_ACCOUNTS: "Only a school administrator keeps the staff accounts.",
    Action.SEE_MAIL: "Only a school administrator sees which mail was sent.",
    Action.SEE_CALENDAR: "The calendar's settings are for the staff.",
    Action.KEEP_CALENDAR: "Only a school administrator changes the calendar.",
    Action.KEEP_LATE_RULE: "Only a school administrator sets the late rule.",
}


def decide(action: Action, standing: Iterable[tuple[Role, Relation]]) -> Decision:
    """Whether a person who stands so towards an object may do this; a person may stand in several ways."""
    standing = tuple(standing)
    if any((action, role, relation) in TABLE for role, relation in standing):
        return Decision(True)
    if any(role is Role.LEAVER for role, _ in standing):
        return Decision(
            False, "You left this class, or it is over or put away: what is yours can be read, and nothing changed."
        )
    return Decision(False, _BECAUSE.get(action, f"You may not {action.value} here."))


_RANKS = (Role.OBSERVER, Role.MARKER, Role.CO_TEACHER, Role.LEAD)
_GIVES: dict[Role, frozenset[Role]] = {
    Role.LEAD: frozenset(_STAFF),
    Role.CO_TEACHER: frozenset(_STAFF) - {Role.LEAD},
}
"""The roles that who keeps the staff of a class may give and take."""


def decide_role(giver: Role, before: Role | None, after: Role | None, *, own: bool) -> Decision:
    """Whether a member of staff may change a role in their class from ``before`` to ``after`` (None: not in it).

    Nobody raises themselves; who is lead is a lead's to say.
    """
    if own and after is not None and (before is None or _RANKS.index(after) > _RANKS.index(before)):
        return Decision(False, "Nobody gives themselves a role.")
    if own:
        return Decision(True)
    changed = {one for one in (before, after) if one is not None}
    if changed <= _GIVES.get(giver, frozenset()):
        return Decision(True)
    return Decision(False, "Only a lead says who is lead of the class.")


def allowed(standing: Iterable[tuple[Role, Relation]]) -> frozenset[Action]:
    """Everything that who stands so may do."""
    standing = frozenset(standing)
    return frozenset(action for action, role, relation in TABLE if (role, relation) in standing)
