"""What stands beside the enquiries: counter, catalogue, rules, patterns."""
