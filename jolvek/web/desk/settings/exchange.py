"""The shop's data in open formats, for its owner: out, and in from another shop."""

from __future__ import annotations

import tempfile
from typing import Any

from flask import Blueprint, Response, request, send_file

from jolvek.core.base.errors import JolvekError
from jolvek.formats import contacts
from jolvek.web import data, errors
from jolvek.web.desk.settings import packing as exchange
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import limits, signing
from jolvek.web.kit.dates import made
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OWNER, PACKED_SHOP
from jolvek.web.saving import by
from jolvek.web.shared import conn, show, table_file

bp = Blueprint("exchange", __name__, url_prefix="/exchange")
pages.add(
    bp,
    {
        "page": OWNER,
        "pack": OWNER,
        "unpack": OWNER,
        "customers": OWNER,
        "enquiries": OWNER,
        "dates": OWNER,
    },
    limits={"unpack": PACKED_SHOP},
)


def _page(taken: exchange.Taken | None = None, wrong: str = "", code: int = 200) -> Any:
    return show("desk/settings/exchange.html", taken=taken, wrong=wrong), code


def _file(body: bytes | str, mime: str, name: str) -> Response:
    signing.record_activity("data taken out", name)
    values = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(body, mimetype=mime, headers=values)


@bp.get("")
def page() -> Any:
    """What can be taken out and in."""
    return _page()


@bp.get("/shop.zip")
@limits.limiter.limit("20 per hour")
def pack() -> Response:
    """All of it."""
    folder = data.settings().data_dir / "photos"
    out = tempfile.TemporaryFile()  # closed by the answer; photos are more than memory may hold
    exchange.pack(conn(), folder, data.shop().currency, out)
    out.seek(0)
    signing.record_activity("data taken out", "shop.zip")
    return send_file(out, "application/zip", as_attachment=True, download_name="shop.zip")


@bp.post("/shop")
@limits.limiter.limit("20 per hour")
def unpack() -> Any:
    """Another shop's, into this one."""
    upload, folder = request.files.get("file"), data.settings().data_dir / "photos"
    if upload is None or not upload.filename:
        return _page(wrong=tr("choose a packed shop first"), code=422)
    try:
        taken = exchange.unpack(conn(), upload.stream, folder, by())
    except JolvekError as error:
        return _page(wrong=str(error), code=422)
    signing.record_activity(
        "data taken in", f"{taken.enquiries} enquiries, {taken.products} products"
    )
    return _page(taken)


errors.refuses_large("exchange.unpack", lambda text: _page(wrong=text, code=422))


@bp.get("/customers.<form>")
def customers(form: str) -> Response:
    """Customers as vCard, CSV or a spreadsheet."""
    found = exchange.customers(conn())
    if form == "vcf":
        return _file(contacts.vcards(found), contacts.VCARD, "customers.vcf")
    head = ("name", "telephone", "mail", "address", "boat")
    signing.record_activity("data taken out", f"customers.{form}"[:40])
    return table_file([head, *(tuple(vars(c).values()) for c in found)], "customers", form)


@bp.get("/enquiries.<form>")
def enquiries(form: str) -> Response:
    """Enquiries as CSV or a spreadsheet."""
    signing.record_activity("data taken out", f"enquiries.{form}"[:40])
    return table_file(exchange.table(conn()), "enquiries", form)


@bp.get("/dates.ics")
def dates() -> Response:
    """Days on the water of what is offered or ordered."""
    body = contacts.calendar(exchange.dates(conn()), data.shop().name, made())
    return _file(body, contacts.ICALENDAR, "dates.ics")
