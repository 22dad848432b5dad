"""What pages show: figures in the user's units, setups worked out."""
