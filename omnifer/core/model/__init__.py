"""The nouns of the job, each defined once: frozen models with the unit in the field's name."""
