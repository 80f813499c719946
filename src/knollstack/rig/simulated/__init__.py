"""A rig that plays a design: it drills, trips, runs casing by the tally and cements by the job, over the feed's own protocol.

Its numbers are the plan's with noise of a seed, and the troubles that are asked for.
"""
