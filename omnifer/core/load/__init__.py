"""Placing: what each carrier holds, the rules of placing, the search for a good load, and why."""
