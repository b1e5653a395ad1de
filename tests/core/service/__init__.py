"""Rules of service papers."""
