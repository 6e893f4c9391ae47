"""One router for each page."""
