"""What the shop says of itself; backups, keys, import and export."""
