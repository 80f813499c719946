"""Pipe: ratings, joints, combined stress, loads, and the choice of weight and grade."""
