"""The variant: what a vehicle is said to be, held against the library; and the library itself."""
