"""The round: every place with what is left there, the place sheet, stand-downs, and the run sheet."""
