"""Migrations of the database."""
