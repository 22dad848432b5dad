"""Which few products serve most customers: the assortment of a shop."""
