"""Work to size: the form of a round part from its readings, what is wanted of it, and when to stop."""
