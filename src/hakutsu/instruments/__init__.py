"""Outside devices: real links, and the simulated stand-ins that ship with the program and speak the same protocols."""
