"""The page of the tow bar."""
