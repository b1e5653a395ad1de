"""The key facts of a vehicle: asked once, corrected one by one."""
