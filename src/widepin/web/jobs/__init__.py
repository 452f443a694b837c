"""What computes for long: in processes of its own, bounded, while pages are served."""
