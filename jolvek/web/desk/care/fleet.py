"""Hire craft and schools: many boats in one table, tomorrow's bookings, the plan of charging."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from flask import Blueprint, Response, redirect, request

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.store import care
from jolvek.store.bookings import Booking
from jolvek.web import data
from jolvek.web.desk.care.fleet_view import MOST, Fleet, fleet
from jolvek.web.kit import display, pages
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import READER, RIGGER
from jolvek.web.saving import by
from jolvek.web.shared import again, conn, form_id, show, table_file

bp = Blueprint("fleet", __name__, url_prefix="/care/fleet")
pages.add(
    bp,
    {
        "page": READER,
        "table": READER,
        "book": RIGGER,
    },
)
SUPPLY_W, BEGIN_H = 3600.0, 18.0  # one household socket; the evening


def _read() -> tuple[Fleet, Reader, float, float, list[tuple[int, str]]]:
    """The boats of a customer, or all; the supply, and from when they stand at it."""
    read = Reader(request.args, display.current())
    supply = read.figure("supply", "power", 100, 1e6)
    begin = read.figure("begin", "clock", 0, 24)
    supply = SUPPLY_W if supply is None else supply
    begin = BEGIN_H if begin is None else begin
    whose = request.args.get("whose", "")
    boats = care.in_service(conn(), MOST, whose)
    found = fleet(conn(), data.shop(), [n for n, _ in boats], supply, begin, date.today())
    return found, read, supply, begin, boats


def _page(refused: dict[str, str] | None = None, code: int = 200) -> Any:
    found, read, supply, begin, boats = _read()
    more = {
        "fleet": found,
        "supply": supply,
        "begin": begin,
        "boats": boats,
        "customers": care.customers_in_service(conn()),
        "whose": request.args.get("whose", ""),
        "refused": {**read.refused, **(refused or {})},
        "typed": request.form if refused else request.args,
        "tomorrow": (date.today() + timedelta(days=1)).isoformat(),
        "most": MOST,
    }
    return show("desk/care/fleet.html", **more), code


@bp.get("")
def page() -> Any:
    """The table, the bookings and the plan."""
    return _page()


@bp.get("/fleet.<form>")
def table(form: str) -> Response:
    """The table as a file."""
    found = _read()[0]
    head = (
        "boat",
        "hours",
        tr("steps due"),
        tr("open faults"),
        "charge",
        "energy",
        "battery",
        "parts",
    )
    rows = [
        (
            r.title,
            f"{r.hours:.1f}",
            str(r.due),
            str(r.faults),
            "" if r.soc is None else f"{100 * r.soc:.0f} %",
            *(f"{x:.2f}" for x in (r.cost.energy, r.cost.battery, r.cost.parts)),
        )
        for r in found.rows
    ]
    return table_file([head, *rows], "fleet", form)


@bp.post("/book")
def book() -> Any:
    """Book a boat for a day, or take a booking off."""
    number, form = form_id("booking"), request.form
    where: dict[str, str] = {}
    if number:
        shop.care.drop_booking(conn(), number)
        return redirect(again("fleet.page", where), 303)
    read = Reader(form, display.current())
    start = read.figure("from_h", "clock", 0, 24)
    length = read.figure("booked_hours", "duration", 360, 24 * 3600)
    for key, value in (("from_h", start), ("booked_hours", length)):
        if value is None and key not in read.refused:
            read.refused[key] = "needed"
    boat = form_id("boat")
    if boat not in {n for n, _ in care.in_service(conn(), 100_000)}:
        read.refused["boat"] = tr("choose a boat in service")
    if read.refused or start is None or length is None:
        return _page(read.refused, 422)
    try:
        on = form.get("on_day", "") or (date.today() + timedelta(days=1)).isoformat()
        record = Booking(0, boat, on, start, length / 3600)
        shop.care.book(conn(), by(), record)
    except JolvekError as error:
        return _page({"from_h": str(error)}, 422)
    return redirect(again("fleet.page", where), 303)
