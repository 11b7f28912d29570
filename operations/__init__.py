"""Running Coat Peg on one machine: installing, the private MariaDB, serving, testing, measuring."""
