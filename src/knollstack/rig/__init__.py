"""The rig's feed: its protocols read, its readings thinned, a connection that comes back; and a rig that plays a design.

Readings are kept in core units. Nothing here knows of the web or the store.
"""
