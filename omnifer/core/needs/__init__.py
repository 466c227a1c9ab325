"""What the road asks of the kit beyond supplies and limits: one need, one file."""
