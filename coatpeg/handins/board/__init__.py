"""The class at a glance: what decides its statuses, the pegs, the list of hand-ins, looking in, caseloads."""
