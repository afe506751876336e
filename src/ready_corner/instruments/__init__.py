"""Measuring tools at the end of a line: how they are asked, and a stand-in that reads practice cars."""
