"""One job: the enquiry and its setups worked out once, from which every page and paper reads."""
