"""Station 3, Shortlist: what does the job, ranked and narrowed, and why the rest does not."""
