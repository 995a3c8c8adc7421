"""Takes: the measured times of a run, and how they come into the show."""
