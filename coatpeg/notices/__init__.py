"""What is told to whom: on the bell, by mail at once or once a day.

Rooms above only put a notice in, within their own deed (``putting.put``): one row for its whole audience. A job fans it
out and sends what is to be sent. Recipients are bare ids of people; who they are, what a notice is called and where it
leads is said by what the rooms above register (``kinds``, ``addressees``). A notice holds ids and no content, so that
what was erased or taken back is told nowhere. Imports jobs and below.
"""
