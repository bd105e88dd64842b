"""Reading text: folding, links, measures, and the word data that ships with them."""
