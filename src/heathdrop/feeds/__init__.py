"""What the boat's instruments say: NMEA 0183 read, merged with its age, and a simulated boat to stand in."""
