"""A setup put together by hand, beside the shortlist."""
