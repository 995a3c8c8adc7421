"""One transition a module, each with a constant TRANSITION."""
