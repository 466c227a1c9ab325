"""What is known of things before they are weighed."""
