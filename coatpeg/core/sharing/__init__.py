"""Rules of pages that several people write at once: what an update holds, whose words stand where, who wrote what."""
