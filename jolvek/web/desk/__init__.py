"""What stands beside the enquiries: a folder each."""
