"""Help: a page for each screen, the example on the start page, and the first show, which teaches by doing."""
