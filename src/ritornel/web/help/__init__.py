"""Help: a page for each screen, the example on the start page, and the first show that teaches by doing."""
