"""What goes onto paper."""
