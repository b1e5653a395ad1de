"""Functions: one tap per try, lamps, what is fitted."""
