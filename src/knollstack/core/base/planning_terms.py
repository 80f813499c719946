"""The glossary's part of planning: rates, times, and what is lost of them."""

# name -> (symbol, meaning)
PLANNING_TERMS: dict[str, tuple[str, str]] = {
    "leak_off_psi": ("p", "pressure at the pump where the line breaks, or of an integrity test the greatest"),
    "drill_pipe_psi": ("p_dp", "shut-in drill pipe pressure"),
    "interval_ft": ("L", "length of the interval"),
    "interval_ft_hour": ("r", "progress over the interval, per hour"),
    "to_md_ft": ("D", "measured depth to which the way goes"),
    "way_ft_hour": ("v", "progress on the way, per hour"),
    "drilled_ft": ("L", "length drilled"),
    "drilling_ft_hour": ("R", "drilling rate on bottom"),
    "connections": ("n", "connections, one with each stand"),
    "connection_minutes": ("t_c", "time of a connection"),
    "cased_ft": ("L_c", "length in casing"),
    "open_ft": ("L_o", "length in open hole"),
    "stand_ft": ("L_s", "length of a stand"),
    "cased_stand_minutes": ("t_c", "time of a stand in casing"),
    "open_stand_minutes": ("t_o", "time of a stand in open hole"),
    "joints": ("n", "joints of the string"),
    "joints_hour": ("r", "joints run per hour"),
    "surge_hours": ("t_s", "time that fills and the speed for surge ask for"),
    "productive_hours": ("t_p", "time of the work itself"),
    "npt_share": ("s", "non-productive time over that of the work"),
    "least_hours": ("a", "least time"),
    "likely_hours": ("m", "most likely time"),
    "most_hours": ("b", "most time"),
}
