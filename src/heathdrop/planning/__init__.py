"""Which few rods to rig for a day of stops."""
