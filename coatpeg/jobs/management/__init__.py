"""Commands for Django's command line."""
