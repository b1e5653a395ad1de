"""What the rules make of the corners: tyres, brakes, running gear."""
