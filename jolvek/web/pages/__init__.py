"""What each page needs, as one frozen record made by a plain function; no HTML but drawings."""
