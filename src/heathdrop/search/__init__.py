"""Fish that are not where one thinks: belief over depth and pace, coverage of casts, the next cast."""
