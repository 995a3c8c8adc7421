"""One effect a module, each with a constant EFFECT."""
