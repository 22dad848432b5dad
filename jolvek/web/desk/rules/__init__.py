"""The rules that setups are judged by."""
