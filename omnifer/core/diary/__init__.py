"""What was noted on the road, and what follows from it: the tour as ridden, the rest of it, and what it teaches."""
