"""Sound: decoding, fades and mixing."""
