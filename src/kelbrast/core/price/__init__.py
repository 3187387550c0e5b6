"""What work costs: quotes from minutes, abrasives, risk and margin."""
