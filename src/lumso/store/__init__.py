"""SQLite by plain SQL: one module per noun, numbered migrations, one writer."""
