"""What the shop's trials teach of each family of boats."""
