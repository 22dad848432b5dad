"""What strangers see, a folder each."""
