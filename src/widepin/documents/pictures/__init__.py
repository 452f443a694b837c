"""Figures as SVG, for pages and for print."""
