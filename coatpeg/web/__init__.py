"""Putting it together: settings, addresses, the API, sign-in, errors, the front end, health."""
