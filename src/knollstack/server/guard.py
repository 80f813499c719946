"""What every request and response must meet: known host, own origin, security headers."""

from __future__ import annotations

import re

from flask import Flask, Response, request

from knollstack.core.reading.read import decode
from knollstack.server.problems import Problem, respond

SECURITY_HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
}


def guard(app: Flask, hosts: set[str]) -> None:
    """Refuse foreign hosts and origins; set the security headers."""

    known = {host.lower() for host in hosts}

    def refuse_strangers() -> Response | None:
        name = re.sub(r":\d+$", "", request.host).lower()
        if name not in known:
            return respond(Problem(title="Unknown host", status=421, detail=f"This server does not answer for {name}."))
        origin = request.headers.get("Origin")
        if origin is not None and origin.split("://", 1)[-1] != request.host:
            return respond(Problem(title="Foreign origin", status=403, detail="Requests from other sites are refused."))
        return None

    def refuse_what_no_file_keeps() -> Response | None:
        data = request.get_data() if request.is_json else b""
        if b"\\ud" in data or b"\\uD" in data:
            decode(data)  # tells where half of a character stands
        return None

    def secure(response: Response) -> Response:
        for name, value in SECURITY_HEADERS.items():
            response.headers.setdefault(name, value)
        if request.path.startswith("/api"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    app.before_request(refuse_strangers)
    app.before_request(refuse_what_no_file_keeps)
    app.after_request(secure)
