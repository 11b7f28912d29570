"""The append-only record of what people did, and how a browser follows it.

Public: ``recording.deed`` (the transaction every command runs in), ``changes.changes_after``.
Imports only the core. Events name people and things by id, so that content can be erased while the
history stays whole.
"""
