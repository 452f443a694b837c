"""Proofs as they are told: lines in words, the reasons behind them, and a card for each reason."""
