"""Reports: what a verdict can say beyond its outcome, each claim as sure as the verdict."""
