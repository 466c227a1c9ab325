"""The stores of a tour told: lanes along the road, what to do at each stop, and the best schedule of all of it."""
