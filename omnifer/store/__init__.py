"""PostgreSQL: our own server, migrations, queries; no rule of the job."""
