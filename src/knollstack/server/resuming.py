"""Feeds taken up again where a server begins: those that were on when it last ended."""

from __future__ import annotations

import contextlib

from knollstack.server.feed import FeedBody
from knollstack.server.feeds import Feeds
from knollstack.store.database import connect
from knollstack.store.feed import list_feeds


def resume(feeds: Feeds) -> None:
    """From now on feeds run."""
    feeds.live = True
    with contextlib.closing(connect(feeds.database)) as held:
        kept = {well: FeedBody.model_validate_json(text) for well, text in list_feeds(held).items()}
    for well, body in kept.items():
        if body.on:
            feeds.start(well, body.source.as_source())
