"""Pictures, clips and sound: taken in, shown, described, annotated, compared; and the desk queue."""
