"""The server: JSON over HTTP under /api, and the built front end."""
