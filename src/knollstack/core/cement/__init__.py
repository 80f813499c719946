"""Cement: the slurry from its recipe, and the volumes of the job."""
