"""What a rig is made of and where each part of it is."""
