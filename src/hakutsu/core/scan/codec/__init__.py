"""The codec of the legislated services and of the two ISO 14229 services that are read: bytes to values, and back."""
