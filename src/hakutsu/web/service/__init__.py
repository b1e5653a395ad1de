"""Service papers: service against plan, tests with advisories, owners, keys and cover."""
