"""An outline in plain words: lines to sections and pockets, a few words to what a pocket asks for, headings to columns.

Public: ``read_outline`` (``outline``), ``read_pocket`` (``wishes``), ``read_columns`` (``headings``), ``read_units``
(``units``). Nothing here is written anywhere: whoever typed it sees what was understood before it is laid out.
"""
