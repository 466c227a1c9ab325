"""Simulated stand-ins for outside devices and services."""
