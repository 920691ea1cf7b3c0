"""What a job takes to the shop and what it costs: needs, stock and promises, packs, and money in minor units."""
