"""The steps of care as the shop has them: Jolvek's and its own, for all boats or a product's."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.care.steps import (
    KINDS,
    LAID_UP,
    SEASON_END,
    SEASON_START,
    Care,
    Edit,
    Profile,
    care_for,
)
from jolvek.store import care_edits
from jolvek.store import shelf as shelf_store
from jolvek.web import data
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.saving import by
from jolvek.web.shared import conn, show

bp = Blueprint("care_steps", __name__, url_prefix="/care/steps")
pages.add(
    bp,
    {
        "page": READER,
        "save": ADVISOR,
    },
)
KIND_WORDS = {
    "trip": msg("after each trip"),
    "hours": msg("every so many hours"),
    "date": msg("with the season"),
    "months": msg("every so many months"),
}
AT_WORDS = {
    "": "–",
    SEASON_START: msg("before the season"),
    SEASON_END: msg("after the season"),
    LAID_UP: msg("while laid up"),
}
LABELS = {
    "text": msg("What is to be done"),
    "hazard": msg("Caution"),
    "kind": msg("When"),
    "every": msg("Every, hours or months"),
    "at": msg("Of the season"),
    "source": msg("Source"),
}
_WATERS = {"salt": (True, False), "fresh, lead": (False, True)}


def _usual() -> dict[str, Care]:
    """Jolvek's own steps of every kind of boat, by key."""
    out: dict[str, Care] = {}
    for salt, lead in _WATERS.values():
        for c in care_for(Profile(salt, lead, False)):
            out.setdefault(c.key, c)
    return out


def _steps(edits: list[Edit], product: str) -> dict[str, Care]:
    """The steps as they stand for a product, or for all boats, by key."""
    mine = {e.key for e in edits if e.product_id == product}
    steps = {c.key: c for c in care_for(Profile(True, False, False, (product,)), edits)}
    return {key: c for key, c in _usual().items() if key not in mine} | steps


def values(c: Care | None) -> dict[str, str]:
    """What the form of a step is filled with; that of a new one without a step."""
    if c is None:
        return {"text": "", "hazard": "", "kind": "hours", "every": "", "at": "", "source": ""}
    every = f"{c.every:g}" if c.every else ""
    own = {"kind": c.kind, "every": every, "at": c.at, "source": c.source}
    return {"text": c.text, "hazard": c.hazard, **own}


def _page(refused: str = "", code: int = 200) -> Any:
    product = request.values.get("product", "")[:80]
    edits = care_edits.all_edits(conn())
    mine = {e.key: e for e in edits if e.product_id == product}
    steps = _steps(edits, product)
    shelf = shelf_store.load(conn())
    products = [x for kind in (shelf.motors, shelf.batteries, shelf.chargers) for x in kind]
    more = {
        "product": product,
        "products": products,
        "steps": list(steps.values()),
        "values": values,
        "dropped": [e.key for e in mine.values() if e.care is None],
        "mine": mine,
        "kinds": KIND_WORDS,
        "ats": AT_WORDS,
        "refused": refused,
        "typed": request.form if refused else {},
        "edited": sorted({e.product_id for e in edits if e.product_id}),
    }
    return show("desk/care/steps.html", **more), code


@bp.get("")
def page() -> Any:
    """All steps, for all boats or those with a product."""
    return _page()


@bp.post("")
def save() -> Any:
    """Keep the shop's word on a step, drop the step, or go back to Jolvek's."""
    form, product = request.form, request.form.get("product", "")[:80]
    key, do = form.get("key", "").strip(), form.get("do", "save")
    if do not in ("save", "drop", "back"):
        abort(422, tr("Read nothing that can be done; allowed is to save, drop or go back."))
    try:
        if do == "back":
            shop.care.usual_step(conn(), product, key)
        else:

            def edited(edits: list[Edit]) -> tuple[str, Care | None]:
                if do == "drop":
                    return key, None
                stands = values(_steps(edits, product).get(key))
                step = _care(key, merged(form, stands, LABELS))
                return step.key, step

            key = shop.care.keep_step(conn(), by(), product, edited)
    except JolvekError as error:
        return _page(str(error), 422)
    signing.record_activity(f"step of care: {do}", f"{product} {key}")
    flash({"save": tr("Kept."), "drop": tr("Dropped."), "back": tr("Jolvek’s own step again.")}[do])
    return redirect(url_for("care_steps.page", product=product or None), 303)


def _care(key: str, form: Any) -> Care:
    """A step as typed; a new one gets a key of its text."""
    text = form.get("text", "").strip()
    key = key or "own-" + "-".join(text.lower().split())[:30]
    kind = form.get("kind", "")
    if kind not in KINDS:
        raise JolvekError(
            tr(
                "kind: read %(kind)s, allowed is one of %(kinds)s",
                kind=repr(kind),
                kinds=", ".join(KINDS),
            )
        )
    every = form.get("every", "").strip().replace(",", ".")
    try:
        count = float(every) if every else 0.0
    except ValueError:
        raise JolvekError(
            tr("every: read %(every)s, allowed is a number of hours or months", every=repr(every))
        ) from None
    source = form.get("source", "").strip() or tr("%(name)s’s own", name=data.shop().name)
    at = form.get("at", "")
    return Care(key, kind, text, count, at, form.get("hazard", "").strip(), source=source)
