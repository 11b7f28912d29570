"""Two who mark the same work independently, and agree; how far markers agree; a sample to moderate."""
