"""OpenDocument presentations (ISO/IEC 26300; OASIS OpenDocument 1.0 to 1.4): `reading` makes a show from one, `writing`
makes one from a show.

`package` opens files that may be hostile, `names` has names and measures, `styles` resolves style names; `letters`,
`forms` and `timing` each have one kind of content, both ways where both exist. A Loss is something that cannot be
carried over; losses are shown before anything is made.
"""
