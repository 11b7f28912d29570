"""The rules of the job, in plain Python: no Django, no files, no network, no clock.

Public: every module of this package. It imports the standard library and pure libraries of the
field (Unicode collation, text boundaries) and nothing else. ``now`` and the school's zone are
always passed in; everything taken and returned is frozen.
"""
