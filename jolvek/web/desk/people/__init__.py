"""The shop's people: roles, one's own account, signing in, the trail."""
