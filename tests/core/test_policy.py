"""The policy, written down a second time by hand: a change of the table must be meant."""

from django.test import SimpleTestCase

from coatpeg.core.policy import TABLE, Action, Relation, Role, decide, decide_role

# For each action: who may do it in a class, whether a student may with their own, whether a caseload's lead may.
EXPECTED: dict[Action, tuple[str, bool, bool]] = {
    Action.FOLLOW_CHANGES: ("lead co_teacher marker observer student", False, False),
    Action.READ_DIRECTIONS: ("lead co_teacher marker observer student leaver", False, False),
    Action.BRING_IN_KNOWN: ("lead", False, False),
    Action.GIVE_PASSWORD: ("lead", False, False),
    Action.SEE_BOARD: ("lead co_teacher marker observer", False, False),
    Action.SEE_HANDINS: ("lead co_teacher marker observer", False, False),
    Action.SEE_FULL_WEEKS: ("observer", False, False),
    Action.SET_HANDIN: ("lead co_teacher", False, False),
    Action.EXCUSE: ("lead co_teacher", False, False),
    Action.SET_OWN_DUE: ("lead co_teacher", False, False),
    Action.REMIND: ("lead co_teacher", False, False),
    Action.LOCK_POCKETS: ("lead co_teacher", False, False),
    Action.HAND_IN_FOR: ("lead co_teacher", False, False),
    Action.SEE_PILE: ("lead co_teacher marker", False, False),
    Action.MARK: ("lead co_teacher marker", False, False),
    Action.DECIDE_ALONE: ("lead", False, False),
    Action.SEE_AGREEMENT: ("lead co_teacher marker", False, False),
    Action.SEE_PORTFOLIO: ("lead co_teacher marker observer", True, True),
    Action.SEE_SUBMISSION: ("lead co_teacher marker observer", True, True),
    Action.COMMENT: ("lead co_teacher marker", False, True),
    Action.ANSWER: ("lead co_teacher marker", True, False),
    Action.SEE_STAFF_NOTES: ("lead co_teacher marker observer", False, True),
    Action.KEEP_STAFF_NOTES: ("lead co_teacher marker", False, True),
    Action.SEE_SHOW_PAGES: ("lead co_teacher marker observer student", False, False),
    Action.OPEN_SHOW_PAGE: ("lead co_teacher", False, False),
    Action.SEE_WORKLIST: ("", True, False),
    Action.ARRANGE_PORTFOLIO: ("", True, False),
    Action.FILL_POCKET: ("", True, False),
    Action.HAND_IN: ("", True, False),
    Action.SEE_ROSTER: ("lead co_teacher marker observer", False, False),
    Action.KEEP_ROSTER: ("lead co_teacher", False, False),
    Action.CHOOSE_GROUP: ("student", False, False),
    Action.SEE_STAFF: ("lead co_teacher marker observer", False, False),
    Action.KEEP_STAFF: ("lead co_teacher", False, False),
    Action.KEEP_CLASS: ("lead", False, False),
    Action.SEE_TEMPLATE: ("lead co_teacher marker observer", False, False),
    Action.EDIT_TEMPLATE: ("lead co_teacher", False, False),
    Action.SEE_CUPBOARD: ("lead co_teacher marker observer student leaver", False, False),
    Action.KEEP_CUPBOARD: ("lead co_teacher", False, False),
    Action.GIVE_OUT: ("lead co_teacher", False, False),
    Action.SEE_COPIES: ("lead co_teacher marker observer", False, False),
    Action.SEE_SHARED: ("lead co_teacher marker observer", True, True),
    Action.WRITE_SHARED: ("", True, False),
    Action.LEAD_SHARED: ("lead co_teacher", False, False),
    Action.SEE_CASELOAD: ("lead co_teacher", False, False),
    Action.SEE_ADJUSTMENTS: ("lead co_teacher", False, True),
    Action.KEEP_ADJUSTMENTS: ("", False, True),
}
# What belongs to the school as a whole: who may, in whatever group they are that.
OF_SCHOOL: dict[Action, str] = {
    Action.SEE_CALENDAR: "administrator lead co_teacher marker observer",
    Action.KEEP_CALENDAR: "administrator",
    Action.KEEP_LATE_RULE: "administrator",
    Action.SEE_GALLERY: "administrator lead co_teacher marker observer",
    Action.START_CLASS: "administrator lead co_teacher marker observer",
    Action.START_CASELOAD: "administrator",
    Action.KEEP_ACCOUNTS: "administrator",
    Action.SEE_MAIL: "administrator",
    Action.BRING_IN_KNOWN: "administrator",
    Action.GIVE_PASSWORD: "administrator",
}
READ_BY_LEAVERS = {Action.SEE_SHARED, Action.SEE_PORTFOLIO, Action.SEE_SUBMISSION, Action.SEE_WORKLIST}


class Policy(SimpleTestCase):
    def test_every_action_role_and_relation(self) -> None:
        for action in Action:
            for role in Role:
                for relation in Relation:
                    with self.subTest(f"{action} {role} {relation}"):
                        self.assertIs(decide(action, [(role, relation)]).allowed, self.expected(action, role, relation))

    def expected(self, action: Action, role: Role, relation: Relation) -> bool:
        if action is Action.USE_ACCOUNT:
            return relation is Relation.OWN or (relation is Relation.CARD and role is Role.STUDENT)
        if action is Action.CHANGE_ACCOUNT:
            return relation is Relation.OWN
        of_school = relation is Relation.SCHOOL and role.value in OF_SCHOOL.get(action, "").split()
        in_class, own, caseload = EXPECTED.get(action, ("", False, False))
        return (
            of_school
            or (relation is Relation.OWN and role is Role.LEAVER and action in READ_BY_LEAVERS)
            or (relation is Relation.CLASS and role.value in in_class.split())
            or (relation is Relation.OWN and own and role is Role.STUDENT)
            or (relation is Relation.CASELOAD and caseload and role in (Role.LEAD, Role.CO_TEACHER))
        )

    def test_an_administrator_sees_no_student_work(self) -> None:
        seen = {action for action, role, _ in TABLE if role is Role.ADMINISTRATOR}
        self.assertEqual(seen, {Action.USE_ACCOUNT, Action.CHANGE_ACCOUNT, *OF_SCHOOL})

    def test_nobody_raises_themselves_and_who_is_lead_is_a_leads_to_say(self) -> None:
        lead, co, marker = Role.LEAD, Role.CO_TEACHER, Role.MARKER
        for giver, before, after, own, allowed in (
            (lead, None, lead, False, True),
            (lead, lead, None, False, True),
            (lead, lead, marker, True, True),
            (co, co, lead, True, False),
            (co, co, marker, True, True),
            (co, co, None, True, True),
            (co, lead, None, False, False),
            (co, lead, marker, False, False),
            (co, marker, lead, False, False),
            (co, None, co, False, True),
            (co, marker, None, False, True),
            (marker, Role.OBSERVER, marker, False, False),
            (lead, None, lead, True, False),
        ):
            with self.subTest(f"{giver} {before} {after} {own}"):
                decision = decide_role(giver, before, after, own=own)
                self.assertEqual((decision.allowed, bool(decision.because)), (allowed, not allowed))

    def test_nothing_is_allowed_towards_the_foreign(self) -> None:
        self.assertFalse([row for row in TABLE if row[2] is Relation.FOREIGN])

    def test_a_no_says_why_and_several_standings_add_up(self) -> None:
        no = decide(Action.MARK, [(Role.OBSERVER, Relation.CLASS)])
        self.assertEqual(
            (no.allowed, no.because), (False, "Only the class's lead, co-teachers and markers mark submissions.")
        )
        both = [(Role.OBSERVER, Relation.CLASS), (Role.LEAD, Relation.CASELOAD)]
        self.assertTrue(decide(Action.SEE_PORTFOLIO, both).allowed)
        self.assertFalse(decide(Action.SEE_BOARD, []).allowed)
