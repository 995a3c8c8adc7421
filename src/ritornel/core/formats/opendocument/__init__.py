"""OpenDocument presentations (ISO/IEC 26300; OASIS OpenDocument 1.0 to 1.4):

`reading` makes a show of one, `writing` makes one of a show.

`package` opens what may be hostile, `names` knows names and measures, `styles` what a name of a style comes to,
`letters`, `forms` and `timing` one kind of content each, both ways where it goes both ways. What cannot be carried over
is a Loss: told before anything is made.
"""
