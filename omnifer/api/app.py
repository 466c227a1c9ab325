"""The application and its guards."""

import ipaddress
import secrets
from mimetypes import guess_type
from pathlib import Path
from typing import Any

from flask import Flask, Response, abort, g, redirect, request, send_from_directory
from flask_compress import Compress
from flask_wtf.csrf import CSRFProtect
from werkzeug.exceptions import NotFound
from werkzeug.middleware.proxy_fix import ProxyFix

from omnifer.api import (
    accounts,
    diary,
    exports,
    health,
    kit,
    library,
    loads,
    members,
    pack,
    problems,
    rehearsal,
    roads,
    stores,
    tours,
    world,
)
from omnifer.api.openapi import document, operation
from omnifer.api.rights import right_for, suffices
from omnifer.formats.bundle import MOST_BYTES
from omnifer.hosting import Hosting
from omnifer.jobs.queue import Errands, Inline, Queue
from omnifer.office.desk import Office
from omnifer.office.problems import NotYours, Problem, SignInFirst
from omnifer.office.signing import Attempts
from omnifer.outside.scale import ScaleService
from omnifer.outside.services import Services
from omnifer.store.accounts import Accounts
from omnifer.store.database import open_pool
from omnifer.store.members import Members

BUILT = Path(__file__).parents[2] / "web" / "dist"
GUIDE, GUIDES_FIRST = BUILT.parent / "guide", "guide/index.html"
"""Where the guide is built, and the page of it that one begins with."""
MIMETYPES = {"js": "text/javascript", "webmanifest": "application/manifest+json"}
BESIDE = ("icon.svg", "icon-192.png", "icon-512.png", "sw.js", "manifest.webmanifest", "licences.txt")
"""Files at the root of the site."""
NONCE_MARK = b"NONCE_PLACEHOLDER"
LARGE, MOST_LARGE_BYTES = ("roads.look_at_map", "roads.bring_heights"), 2**30
"""What takes files larger than others, and how large [bytes]."""
OPEN = accounts.OPEN | {"openapi"}
"""What of the API may be asked by who is not signed in."""
INSIDE = ("health.healthz", "health.metrics")
"""What only the machine of the server is told."""
FORWARDED = ("Forwarded", "Via", "X-Real-IP", "X-Forwarded-For", "X-Forwarded-Host", "X-Forwarded-Proto", "X-Forwarded-Server")
"""What a proxy adds: behind one everybody would seem to be the rider at this machine."""
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; style-src-attr 'none'; "
    "img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; worker-src 'self'; "
    "base-uri 'none'; form-action 'self'; frame-ancestors 'none'; object-src 'none'"
)


def create_app(
    address: str | None,
    secret_key: str | None = None,
    built: Path = BUILT,
    services: Services | None = None,
    queued: bool = False,
    roads_folder: Path | None = None,
    scale_port: int | None = None,
    hosting: Hosting | None = None,
) -> Flask:
    """The application on a migrated database.

    Parameters
    ----------
    address : str
        Of the database; None makes an application that can only describe itself.
    secret_key : str, optional
        Signs session cookies; a new one where left out, which signs everybody out at a restart.
    built : Path
        Folder of the built front end.
    services : Services, optional
        What is asked outside: weather, maps, heights; none where left out.
    queued : bool
        What takes long is left to workers; else it is done on the spot.
    roads_folder : Path, optional
        Folder of measured roads, shared with other processes of this machine.
    scale_port : int, optional
        Of a weighing scale on this machine; without one weights are typed.
    hosting : Hosting, optional
        How riders reach it from other machines, where they sign in; left out, it serves the local rider of this machine alone.
    """
    app = Flask(__name__, static_folder=None)
    app.config.update(
        SECRET_KEY=secret_key or secrets.token_hex(32),
        SESSION_COOKIE_NAME="omnifer",
        SESSION_COOKIE_SAMESITE="Strict",
        SESSION_COOKIE_HTTPONLY=True,
        MAX_CONTENT_LENGTH=MOST_BYTES,
        MAX_FORM_MEMORY_SIZE=MOST_BYTES,
        TRUSTED_HOSTS=["localhost", "127.0.0.1"],
        WTF_CSRF_TIME_LIMIT=None,
        WTF_CSRF_SSL_STRICT=False,
        COMPRESS_ALGORITHM=["br", "gzip"],
        COMPRESS_BR_LEVEL=4,
        COMPRESS_STREAMS=False,
    )
    app.extensions["hosting"] = hosting
    if hosting is not None:
        _host(app, hosting)
    _large_uploads(app)
    CSRFProtect(app)
    Compress(app)
    health.register(app)
    problems.register(app)
    if address is not None:
        pool = open_pool(address)
        outside = services or Services()
        errands: Errands = Queue(pool, address) if queued else Inline(outside)
        app.extensions |= {"omnifer": Office(pool, roads_folder), "errands": errands, "weather": outside.weather}
        app.extensions["attempts"] = Attempts(pool)
    # A scale stands beside who weighs, which no host does.
    app.extensions["scale"] = ScaleService(None if hosting else scale_port)
    for part in (accounts, members, health, tours, kit, library, loads, exports, roads, stores, pack, diary, rehearsal, world):
        app.register_blueprint(part.blueprint)
    _guard(app)
    _pages(app, built)
    _guide(app)
    return app


def _large_uploads(app: Flask) -> None:
    """Regions of the world are larger than what else is taken; they are passed on in pieces. Said before anybody reads a form."""

    @app.before_request
    def allow() -> None:
        if request.endpoint in LARGE:
            request.max_content_length = MOST_LARGE_BYTES


def _guard(app: Flask) -> None:
    """On a laptop the local rider is signed in, and only from this machine; hosted, whoever signs in."""

    @app.before_request
    def known_only() -> None:
        hosting: Hosting | None = app.extensions["hosting"]
        inside = request.endpoint in INSIDE
        if hosting is None or inside:
            if not _from_here() or any(name in request.headers for name in FORWARDED):
                words = "Omnifer answers only on the machine it runs on, and to nobody through a proxy, where it is not hosted."
                abort(403, "This is told on the machine of the server alone." if inside else words)
            return
        secret = request.cookies.get(accounts.cookie_name(hosting.secure))
        g.rider = Accounts(app.extensions["omnifer"].pool).signed_in(secret) if secret else None
        known = request.url_rule is not None and request.path.startswith("/api/")
        if g.rider is None and known and request.endpoint not in OPEN:
            raise SignInFirst
        if g.rider is not None:
            tour_id = (request.view_args or {}).get("tour_id", "")
            g.access = Members(app.extensions["omnifer"].pool, g.rider.owner_id).access(tour_id)
            wanted = right_for(request.endpoint or "", request.method)
            if tour_id and not suffices(g.access.right, wanted):
                raise NotYours(g.access.right)

    @app.after_request
    def harden(response: Response) -> Response:
        policy = POLICY.format(nonce=_nonce())
        if request.endpoint == "guide":
            policy = policy.replace("script-src 'self'", f"script-src 'self' 'nonce-{_nonce()}'")
        response.headers["Content-Security-Policy"] = policy
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    @app.get("/api/openapi.json")
    @operation()
    def openapi() -> Any:
        """This document."""
        return app.json.response(document(app))


def _from_here() -> bool:
    """Whether the request comes from this machine, whatever a proxy says."""
    there = request.environ.get("werkzeug.proxy_fix.orig", {}).get("REMOTE_ADDR", request.remote_addr)
    try:
        return ipaddress.ip_address(there or "").is_loopback
    except ValueError:
        return False


def _host(app: Flask, hosting: Hosting) -> None:
    """What else holds where riders come from other machines."""
    app.config.update(
        TRUSTED_HOSTS=[hosting.host.partition(":")[0]], SESSION_COOKIE_SECURE=hosting.secure, SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_NAME="__Host-omnifer" if hosting.secure else "omnifer",
    )  # fmt: skip
    if hosting.proxies:
        n = hosting.proxies
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=n, x_proto=n, x_host=n)  # type: ignore[method-assign]
    if hosting.secure:

        @app.after_request
        def by_tls_alone(response: Response) -> Response:
            response.headers["Strict-Transport-Security"] = "max-age=31536000"
            return response


def _nonce() -> str:
    if "nonce" not in g:
        g.nonce = secrets.token_urlsafe(16)
    return str(g.nonce)


def _pages(app: Flask, built: Path) -> None:
    """The built front end: its files as they are, its one page wherever a view's address is asked for."""

    @app.get("/assets/<path:name>")
    def assets(name: str) -> Response:
        packed = f"{name}.gz"
        if request.accept_encodings["gzip"] > 0 and (built / "assets" / packed).is_file():
            response = send_from_directory(built / "assets", packed, mimetype=guess_type(name)[0])
            response.headers["Content-Encoding"] = "gzip"
        else:
            response = send_from_directory(built / "assets", name)
        response.headers["Vary"] = "Accept-Encoding"
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response

    @app.get(f"/<any({', '.join(map(repr, BESIDE))}):name>")
    def beside(name: str) -> Response:
        response = send_from_directory(built, name, mimetype=MIMETYPES.get(name.rpartition(".")[2]))
        response.headers["Cache-Control"] = "no-cache"
        return response

    @app.errorhandler(404)
    def page(error: NotFound) -> Response:
        path = request.path
        if request.method not in ("GET", "HEAD") or path.startswith(("/api/", "/assets/")) or "." in path.rpartition("/")[2]:
            return problems.problem(Problem(status=404, title="Not there", detail=f"Nothing lives at {path[:200]}."))
        index = built / "index.html"
        if not index.exists():
            told = Problem(status=503, title="Not built", detail="The screens are not built yet.", mend="Run bin/start.")
            return problems.problem(told)
        html = index.read_bytes().replace(NONCE_MARK, _nonce().encode())
        response: Response = app.response_class(html, mimetype="text/html")
        response.headers["Cache-Control"] = "no-store"
        return response


def _guide(app: Flask) -> None:
    """The guide, as it was built: its pages carry small scripts of their own, which only its own headers allow."""

    @app.get("/guide/")
    def guides_first() -> Any:
        return redirect(f"/guide/{GUIDES_FIRST}")

    @app.get("/guide/<path:name>")
    def guide(name: str) -> Response:
        if not (GUIDE / GUIDES_FIRST).is_file():
            told = Problem(status=503, title="Not built", detail="The guide is not built yet.", mend="Run bin/start.")
            return problems.problem(told)
        page = name.endswith(".html")
        # A page that was kept would meet the mark of a later answer: "as it was" is never said of one.
        response = send_from_directory(GUIDE, name, conditional=not page, etag=not page)
        response.headers["Cache-Control"] = "no-store" if page else "no-cache"
        if page:
            response.headers.remove("Last-Modified")
            response.direct_passthrough = False
            response.set_data(response.get_data().replace(b"<script", b'<script nonce="' + _nonce().encode() + b'"'))
        return response
