"""The store: SQLite in WAL mode, numbered migrations, plain SQL, every revision kept."""
