"""What a vehicle is made of: panels, body styles, substrates, units and the names of things."""
