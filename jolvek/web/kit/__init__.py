"""What pages are made of: units and language, access, fields, charts, drawings, components."""
