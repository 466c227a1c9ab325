"""From a track or typed days to a profile, its weather, its pace and its days."""
