"""Schedule and tracks -> frames -> films and stills, with Skia and PyAV."""
