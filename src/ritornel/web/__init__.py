"""The web application: the only place that imports Django. Views stay thin; the rules are in ritornel.core."""
