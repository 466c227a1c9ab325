"""What the road asks for: water and food between the places that have them."""
