"""What kind of thing an event is about, by its verb: how a follower knows which of their views it touches."""

from __future__ import annotations

from enum import StrEnum


class Kind(StrEnum):
    """What was touched."""

    WORK = "work"
    HANDING = "handing"
    MARKS = "marks"
    COMMENTS = "comments"
    REMINDERS = "reminders"
    SHOW = "show"
    ASKED = "asked"
    OWN_DUES = "own_dues"
    ADJUSTMENTS = "adjustments"
    TEMPLATE = "template"
    GALLERY = "gallery"
    CUPBOARD = "cupboard"
    ROSTER = "roster"
    LISTS = "lists"
    STAFF = "staff"
    CALENDAR = "calendar"


_VERBS = {
    Kind.WORK: (
        "artefact_added artefact_ready artefact_renamed artefact_replaced copy_given copy_laid copy_renewed "
        "copy_taken_back cover_picture_kept cover_set evidence_moved "
        "evidence_removed evidence_restored page_added page_moved page_removed page_restored page_written "
        "reflection_spoken reflection_unsaid row_added row_artefact_kept row_changed row_removed row_restored "
        "rows_pasted shared_page_settled shared_page_led shared_passage_taken shared_passage_put_back "
        "shared_moment_brought_back text_written"
    ),
    Kind.HANDING: (
        "handed_in taken_back accepted sent_back reopened excused unexcused pockets_locked pockets_unlocked "
        "part_said parts_confirmed"
    ),
    Kind.MARKS: "mark_released feedback_read sheet_changed marking_ruled mark_done late_rule_set",
    Kind.COMMENTS: (
        "commented comment_removed comment_restored annotation_removed annotation_restored annotations_shown "
        "annotation_ticked answered answer_removed answer_restored thread_settled thread_reopened wording_chosen "
        "staff_noted staff_note_removed staff_note_restored class_noted class_note_removed class_note_restored"
    ),
    Kind.REMINDERS: "reminded",
    Kind.SHOW: "show_page_arranged show_page_opened show_page_closed shows_changed",
    Kind.ASKED: (
        "handin_set handin_taken_back handin_changed handin_taken_away handin_brought_back dates_moved handin_closed "
        "handin_came_due handin_drafted handins_laid_out"
    ),
    Kind.OWN_DUES: "own_due_set",
    Kind.ADJUSTMENTS: "adjustment_agreed adjustment_changed adjustment_removed",
    Kind.TEMPLATE: (
        "brought_undone change_brought_in outline_laid pocket_added pocket_changed pocket_file_added "
        "pocket_file_removed pocket_file_restored pocket_moved pocket_removed pocket_restored pocket_retired "
        "section_added section_changed section_moved section_removed template_adopted template_carried_over "
        "template_published template_withdrawn template_looked_through units_laid_out"
    ),
    Kind.CUPBOARD: (
        "cupboard_item_put_in cupboard_item_changed cupboard_item_removed cupboard_item_restored given_out "
        "given_out_planned given_out_taken_back given_out_again cupboard_item_lent cupboard_brought_along"
    ),
    Kind.ROSTER: (
        "card_made card_voided came_back enrolled left password_given pegs_swapped roster_undone student_changed "
        "groups_changed pages_together_allowed class_changed class_started accounts_put_together accounts_parted"
    ),
    Kind.LISTS: (
        "join_confirmed join_declined join_requested join_withdrawn roster_by_itself roster_dropped roster_put_aside"
    ),
    Kind.STAFF: "class_brought_back class_deleted class_put_away staff_changed",
    Kind.CALENDAR: "calendar_changed",
}
KIND_OF = {verb: kind for kind, verbs in _VERBS.items() for verb in verbs.split()}
"""The kind of every verb; what has none cannot be recorded."""
