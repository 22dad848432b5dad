"""What is on a shelf: motors, mounts, accessories, and the shelf itself."""
