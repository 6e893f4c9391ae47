"""The trainer: a counting hand judged from blind taps, and which topic is due next."""
