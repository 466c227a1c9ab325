"""What is known of the world wherever a road goes: tables that ship, each with its source and its width.

The files under `data/` are written by `world/` at the root of the project and mapped into memory, not parsed.
"""
