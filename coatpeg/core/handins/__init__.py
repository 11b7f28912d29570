"""Rules of handing in: who is asked and when, statuses, locks, snapshots, receipts, what comes first."""
