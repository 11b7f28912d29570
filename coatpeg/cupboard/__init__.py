"""The cupboard: resources that students read and copy but never harm, and giving out copies of them.

``keeping`` puts items in and changes them, ``reading`` is what each person is shown, ``laying`` makes copies (the one
place), ``taking`` is a student taking one, ``giving`` staff giving many, ``renewing`` brings a changed item to the
copies of it. Imports go down to portfolios; hand-ins and everything above may read what lies here.
"""
