"""The engine station: the run, air-conditioning, battery and pack."""
