"""Rules of what lies in a portfolio: texts, their counting and merging; links, names and containers of what comes in;
resumable uploads; the columns, rows and sums of logs.

An outline names a text's length and a log's columns, so this inner room stands below ``core.outlines``.
"""
