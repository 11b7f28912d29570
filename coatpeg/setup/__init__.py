"""Setting a running class up: its list, its template, the school's calendar, starting one.

What changes a class that runs may count statuses and make portfolios, so this room stands above hand-ins. Nothing below
imports it.
"""
