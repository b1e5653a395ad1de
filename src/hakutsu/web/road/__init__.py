"""The road test: before, the drive, what was noticed, what is measured, and what is looked at after it."""
