"""Computation that knows no car: arrays and frozen values in and out."""
