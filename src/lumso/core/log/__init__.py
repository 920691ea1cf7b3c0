"""What was really done: acts at the bench as they were noted, pots and jars as they follow from them."""
