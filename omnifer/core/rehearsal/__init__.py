"""The tour played many times, with weather, use, places and troubles drawn at random."""
