"""What happened at the rig beside what was planned: the log's facts put into the design, what departs, what is still free."""
