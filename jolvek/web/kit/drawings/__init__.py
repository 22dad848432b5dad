"""SVG builders."""
