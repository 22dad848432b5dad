"""The counter: quick start and open enquiries."""
