"""The cabin station: wear by part, smells, moisture, signs."""
