"""OpenDocument presentations (ISO/IEC 26300; OASIS OpenDocument 1.0 to 1.4): `reading` makes a show from one, `writing`
makes one from a show. `package` opens files that may be hostile, `names` has names and measures, `styles` resolves
style names; `letters`, `forms` and `timing` each have one kind of content, both ways where both exist. A Loss is
something that cannot be carried over; losses are shown before anything is made.

`reading` makes a show of one, `writing` makes one of a show.

`package` opens what may be hostile, `names` knows names and measures, `styles` what a name of a style comes to,
`letters`, `forms` and `timing` one kind of content each, both ways where it goes both ways. What cannot be carried over
is a Loss: told before anything is made.
"""
