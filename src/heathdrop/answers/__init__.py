"""One use case for each question asked of us, answered in typed records that every door reads."""
