"""Takes: what a run measured, and how its timing comes into the show."""
