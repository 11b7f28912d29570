"""Work in the background, on django-tasks' queue in our database.

That queue enqueues within the caller's transaction and hands each task to one worker (``SKIP LOCKED``); it has neither
lease nor retry, and those are what this room adds, from the queue's own rows: ``kinds`` (how long a kind of work may
take, how often it is tried), ``leases`` (what a worker left half-done is taken back), ``worker`` (the one worker),
``schedules`` (what is looked after again and again), ``health`` (what is stuck or dead). A job's function lives in the
room it belongs to; it may run again at any time and must do no harm by it. Imports events and below.
"""
