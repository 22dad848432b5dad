"""What a customer asks: boat, load, day, and what they demand."""
