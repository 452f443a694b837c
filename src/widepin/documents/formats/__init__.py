"""The open documents: JSON in and out, validated. Their description is docs/formats.md."""
