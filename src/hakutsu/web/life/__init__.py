"""Remaining life, money, negotiation."""
