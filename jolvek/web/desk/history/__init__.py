"""What was changed of an enquiry, and going back."""
