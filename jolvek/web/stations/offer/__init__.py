"""Station 7, Offer: the draft, the paper, what was sent, parts to order."""
