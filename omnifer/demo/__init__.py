"""The invented sample tour."""
