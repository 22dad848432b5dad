"""Which role an address asks for. What is not in the table is refused; a test holds the table
against the application's addresses.
"""

from __future__ import annotations

from jolvek.store.people import ROLES

OPEN = "open"  # without sign-in
KEYED = "key"  # for the dealer's own site, by a key that the page itself asks for
READER, RIGGER, ADVISOR, OWNER = ROLES

ACCESS: dict[str, str] = {
    "static": OPEN,
    "sign_in.page": OPEN,
    "sign_in.enter": OPEN,
    "sign_in.welcome": OPEN,
    "sign_in.choose": OPEN,
    "health.page": OPEN,
    "customer.page": OPEN,  # by a link to one offer
    "customer.answer": OPEN,
    "customer.paper": OPEN,
    "customer.total": OPEN,
    "api.predict": KEYED,
    "api.match": KEYED,
    "api.document": OPEN,
    "ask.page": OPEN,
    "ask.send": OPEN,
    "ask.thanks": OPEN,
    "account.page": READER,
    "account.leave": READER,
    "account.leave_all": READER,
    "account.password": READER,
    "account.factor": READER,
    "account.play": READER,  # another role of the demo; nothing elsewhere
    "choices.choose": READER,
    "counter.page": READER,
    "counter.find": READER,
    "patterns.page": READER,
    "rules.page": READER,
    "shelf.page": READER,
    "shelf.product": READER,
    "shelf.compare": READER,
    "history.page": READER,
    "boat.page": READER,
    "boat.show_photo": READER,
    "ask.photo": READER,
    "by_hand.page": READER,
    "day_out.page": READER,
    "day_out.as_csv": READER,
    "day_out.way": READER,
    "fitting.page": READER,
    "fitting.sheet_pdf": READER,
    "job.page": READER,
    "offer.page": READER,
    "own_gear.page": READER,
    "shortlist.page": READER,
    "shortlist.what_if": READER,
    "side_by_side.page": READER,
    "side_by_side.as_csv": READER,
    "side_by_side.as_svg": READER,
    "side_by_side.as_table": READER,
    "waters.page": READER,
    "fitting.keep": RIGGER,
    "boat.photo": RIGGER,
    "ask.looked": ADVISOR,
    "boat.export": ADVISOR,
    "boat.save": ADVISOR,
    "boat.start_from": ADVISOR,
    "counter.archive": ADVISOR,
    "counter.copy": ADVISOR,
    "counter.keep": ADVISOR,
    "counter.open_file": ADVISOR,
    "day_out.import_way": ADVISOR,
    "day_out.keep": ADVISOR,
    "history.back": ADVISOR,
    "job.add": ADVISOR,
    "job.model": ADVISOR,
    "job.part": ADVISOR,
    "job.take": ADVISOR,
    "offer.acknowledge": ADVISOR,
    "offer.claims": ADVISOR,
    "offer.save": ADVISOR,
    "sent.copy": READER,
    "sent.link": ADVISOR,
    "sent.order": READER,
    "sent.order_file": READER,
    "sent.keep_order": ADVISOR,
    "sent.seen": ADVISOR,
    "offer.send": ADVISOR,
    "offer.stage": ADVISOR,
    "own_gear.add": ADVISOR,
    "own_gear.off": ADVISOR,
    "price_lists.columns": ADVISOR,
    "price_lists.confirm": ADVISOR,
    "price_lists.import_form": ADVISOR,
    "price_lists.preview": ADVISOR,
    "shelf.export_csv": ADVISOR,
    "shelf.export_json": ADVISOR,
    "shelf.new": ADVISOR,
    "shelf.save": ADVISOR,
    "shelf.undo": ADVISOR,
    "stock.save": ADVISOR,
    "shortlist.keep_weights": ADVISOR,
    "shortlist.pin": ADVISOR,
    "shortlist.unpin": ADVISOR,
    "side_by_side.choose": ADVISOR,
    "side_by_side.extra": ADVISOR,
    "waters.legs": ADVISOR,
    "waters.save": ADVISOR,
    "shop.page": OWNER,
    "shop.save": OWNER,
    "shop.logo": OWNER,
    "shop.show_logo": OPEN,  # stands on what customers get
    "backups.page": OWNER,
    "backups.make": OWNER,
    "backups.download": OWNER,
    "keys.page": OWNER,
    "keys.make": OWNER,
    "keys.drop": OWNER,
    "exchange.page": OWNER,
    "exchange.pack": OWNER,
    "exchange.unpack": OWNER,
    "exchange.customers": OWNER,
    "exchange.enquiries": OWNER,
    "exchange.dates": OWNER,
    "people.page": OWNER,
    "people.add": OWNER,
    "people.change": OWNER,
    "people.invite": OWNER,
    "people.leave": OWNER,
    "trail.page": OWNER,
    "trail.as_csv": OWNER,
}


def may(role: str | None, endpoint: str) -> bool:
    """Whether a role, or nobody (None), may use an address.

    >>> may("reader", "boat.page"), may("reader", "boat.save"), may("owner", "people.page")
    (True, False, True)
    >>> may(None, "sign_in.page"), may(None, "boat.page"), may("owner", "not.there")
    (True, False, False)
    """
    least = ACCESS.get(endpoint)
    if least in (OPEN, KEYED):
        return True
    return least is not None and role in ROLES and ROLES.index(role) >= ROLES.index(least)
