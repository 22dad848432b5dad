"""A boat's own page, behind the code on her sticker."""
