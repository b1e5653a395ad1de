"""The film station: readings, cues, shell sheet, gauge link, import."""
