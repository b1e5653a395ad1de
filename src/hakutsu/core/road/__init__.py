"""Rules of the road test: what was felt, heard and measured, bound to the level that was reached."""
