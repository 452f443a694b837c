"""Running Wide Pin on one machine: a private MariaDB, migrations, the web server, and the demo of all three."""
