"""Simulated stand-ins for outside devices and services."""

PATHS = {"OMNIFER_WEATHER": "/weather", "OMNIFER_MAPS": "/map/api/interpreter", "OMNIFER_HEIGHTS": "/heights/lookup"}
"""Where each stand-in of a service is found, by the setting that says where else one is."""
