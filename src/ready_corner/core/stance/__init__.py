"""Tyres, ride heights, springs, corner loads, dummy struts."""
