"""How Debian's Chromium is started: as root, and quiet on the network."""

EXECUTABLE = "/usr/bin/chromium"
CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
