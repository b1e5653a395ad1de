"""The vehicle's own memory: published byte layouts, what codes say, whether the memory was cleared."""
