"""What a map knows of the land beside a road, as stops, surfaces and stretches that are proposed."""
