"""The web side: parse, call one thing, answer. No rule of the job lives here."""
