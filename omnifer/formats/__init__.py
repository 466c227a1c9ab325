"""Open formats in and out; no rule of the job."""
