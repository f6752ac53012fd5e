"""Pages: the public page of a form, the embedded scripts, and the console."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from urllib.parse import urlsplit

from flask import (
    Blueprint,
    Response,
    abort,
    redirect,
    render_template,
    request,
    send_from_directory,
)
from flask.typing import ResponseReturnValue

from anchorline.core.faults import Faults
from anchorline.core.forms.public import read_public
from anchorline.store.database import DatabaseUnavailableError, NotThereError

from .busy_words import BUSY_WORDS
from .context import Services
from .static_files import static_file

WEB = Path(__file__).with_name("web")
# The console's component library sets styles on elements; scripts are ours alone.
_POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' data:{tiles}; object-src 'none'; base-uri 'none'; form-action 'self'; "
    "frame-ancestors {sites}"
)


def site_pages(services: Services) -> Blueprint:
    """The pages that people open."""
    pages = Blueprint("pages", __name__, template_folder="templates", static_folder=None)

    @pages.get("/f/<form>")
    def form_page(form: str) -> tuple[Response, int] | Response:
        try:
            document, _version = services.published_forms.version(form)
        except NotThereError:
            return _page("missing.html"), 404
        except DatabaseUnavailableError:
            return _busy_page()
        if document["kind"] != "web":
            return _page("missing.html"), 404
        public = read_public(document, Faults())
        if public.closed:
            return _page(
                "closed.html",
                title=document["title"],
                text=public.closed_text,
                policy=_policy("", public.sites),
            )
        return _page(
            "form.html",
            title=document["title"],
            form=form,
            access=services.gate.page_token(form),
            policy=_policy(services.settings.map_tiles, public.sites),
        )

    @pages.get("/embed/<path:name>")
    def embed(name: str) -> Response:
        response = static_file(WEB / "embed", name, max_age=300)
        response.headers["Access-Control-Allow-Origin"] = "*"
        return response

    @pages.get("/assets/<path:name>")
    def assets(name: str) -> Response:
        # Their names carry a digest of what is in them.
        return static_file(WEB / "console" / "assets", name, max_age=31_536_000)

    @pages.get("/favicon.svg")
    @pages.get("/favicon.ico")
    def favicon() -> Response:
        return send_from_directory(WEB / "console", "favicon.svg", max_age=86_400)

    @pages.get("/")
    def root() -> ResponseReturnValue:
        return redirect("/console")

    _add_console(pages, services)
    return pages


def _add_console(pages: Blueprint, services: Services) -> None:
    """The console, and the small window between it and a page that it has opened."""

    @pages.get("/console/opened-page")
    def opened_page() -> Response:
        return _page("opened.html")

    @pages.get("/console")
    @pages.get("/console/")
    @pages.get("/console/<path:place>")
    def console(place: str = "") -> Response:  # noqa: ARG001
        if not (WEB / "console" / "index.html").is_file():
            abort(503, "The console has not been built: run `make web`.")
        response = send_from_directory(WEB / "console", "index.html", max_age=0)
        response.headers["Content-Security-Policy"] = _policy(services.settings.map_tiles)
        # No page that is opened from here, or opens this one, has a hold on its window.
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        return response


def _policy(tiles: str = "", sites: Sequence[str] = ()) -> str:
    """A content security policy: whose pictures are shown, and who may show the page in a frame."""
    address = urlsplit(tiles)
    origin = f" {address.scheme}://{address.netloc}" if address.netloc else ""
    return _POLICY.format(tiles=origin, sites=" ".join(sites) or "'none'")


def _busy_page() -> tuple[Response, int]:
    """What a visitor sees while a form cannot be shown: it looks again by itself."""
    language = request.accept_languages.best_match(list(BUSY_WORDS), "en")
    response = _page("busy.html", language=language, **BUSY_WORDS[language])
    response.headers["Retry-After"] = response.headers["Refresh"] = "5"
    return response, 503


def _page(template: str, policy: str | None = None, **values: str) -> Response:
    response = Response(render_template(template, **values), content_type="text/html")
    response.headers["Content-Security-Policy"] = policy or _policy()
    response.headers["Cache-Control"] = "no-store"
    return response
