"""What every request and response must meet: known host, own origin, security headers."""

from __future__ import annotations

from flask import Flask, Response, request

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

    def refuse_strangers() -> Response | None:
        name = request.host.rsplit(":", 1)[0]
        if name not in hosts:
            return respond(Problem(title="Unknown host", status=421, detail=f"This server does not answer for {name}."))
        origin = request.headers.get("Origin")
        if origin is not None and origin.split("://", 1)[-1] != request.host:
            return respond(Problem(title="Foreign origin", status=403, detail="Requests from other sites are refused."))
        return None

    def secure(response: Response) -> Response:
        for name, value in SECURITY_HEADERS.items():
            response.headers.setdefault(name, value)
        if request.path.startswith("/api"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    app.before_request(refuse_strangers)
    app.after_request(secure)
