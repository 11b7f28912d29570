"""Pockets that several students fill together: live, and always with who put in what.

A page belongs to a pocket of the template and to those who fill it (a working group, a period, the class); what stands
on it is laid into the portfolio of each of them (``settling``), so that filling, handing in and marking see it as any
other page. ``finding`` says which page is whose and who may do what, ``exchanging`` takes updates and gives out the
others', ``settling`` puts them together, ``things`` lays artefacts and rows of one into the portfolios of the others,
``written`` tells who wrote what, ``leading`` is what the staff do. Merging is Yjs's in the browser and y-crdt's here
(pycrdt). Imports go down to portfolios.
"""
