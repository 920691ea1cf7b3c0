"""One mix: what is in it, how thick it is, how it is measured out."""
