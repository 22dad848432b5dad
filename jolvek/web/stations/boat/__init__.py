"""Station 1, Boat: hull, load, transom, bays and what the customer has; the boats of a job."""
