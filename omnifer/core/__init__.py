"""The rules of the job: pure functions from a tour to what it means. No interface, no files, no clock, no chance."""
