"""One module per station of an enquiry."""
