"""The corner station: wheels, tyres, brakes, running gear; and the brakes as a whole."""
