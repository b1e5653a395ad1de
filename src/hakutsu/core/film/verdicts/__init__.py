"""What follows from the model for one panel or spot: reasons, extent, headroom, next spot, story, schools."""
