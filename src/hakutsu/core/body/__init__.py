"""Rules of what is seen outside: remedies and their cost, contacts, fit, glass, rust, hail."""
