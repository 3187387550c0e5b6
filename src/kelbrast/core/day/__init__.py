"""The day of a shop: who does what, when, on which spindle."""
