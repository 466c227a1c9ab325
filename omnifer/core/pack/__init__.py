"""The last days at home: in which order a camp is made, what the scale says, what is checked, and how it all travels."""
