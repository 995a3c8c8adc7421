"""How things move: easings, channels, ramps and their sampling; one file an effect, one file a transition."""
