"""The rules of the job. Pure Python: no web, no database, no clock, no files, no floating point."""
