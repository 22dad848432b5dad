"""The stations of an enquiry, a folder each: routes, form, what its templates need, templates."""
