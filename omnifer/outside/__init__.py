"""Clients of outside services, which may be slow, wrong or gone."""
