"""Accounts, teaching groups, enrolment, staff roles, adjustments, the school's calendar.

Public: ``access`` (how a person stands to a group or a student), ``calendars.school_calendar``,
``rosters`` (students as the rules see them), ``accounts``. Imports core and events.
"""
