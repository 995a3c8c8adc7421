"""From objects to marks: text shaped and broken into lines, forms as outlines, pictures fitted."""
