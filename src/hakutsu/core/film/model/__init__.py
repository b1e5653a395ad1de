"""The probabilistic model: likelihood of readings, what film may look like in each state, and the whole car at once."""
