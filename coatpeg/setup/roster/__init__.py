"""Class lists: read, planned, applied, undone; through the roster folder; sign-in cards on paper."""
