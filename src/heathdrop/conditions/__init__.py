"""What is asked of us: the water, the cover, the gear, one row for each; and the facts rules may speak of."""
