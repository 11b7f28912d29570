"""A student's views: pockets, what to hand in, dates to subscribe to."""
