"""Kelbrast: from a scratched part to the finish it needs, worked out from the physics and the shop's own rack."""

__version__ = "0.1.0"
