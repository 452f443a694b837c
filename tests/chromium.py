"""How Debian's Chromium is started: without its own windows, which take half of the time, as root, and quiet on the
network.
"""

EXECUTABLE = "/usr/bin/chromium-headless-shell"
CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
]
