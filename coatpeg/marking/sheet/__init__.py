"""The sheet of scores: results side by side, totals by weights, how each hand-in came out."""
