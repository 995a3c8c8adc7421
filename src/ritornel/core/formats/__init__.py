"""Open formats, one a file: reading and writing."""
