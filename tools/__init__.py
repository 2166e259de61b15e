"""What the script `./slate` needs besides the application: a PostgreSQL of its own, start and stop."""
