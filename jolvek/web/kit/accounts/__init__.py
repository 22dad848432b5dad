"""Who may come in and what each role may do; default is no."""
