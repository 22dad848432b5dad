"""Every form carries the version it was filled from: two savers keep what each of them changed."""

import json
import re
from html import unescape
from html.parser import HTMLParser

import pytest

from jolvek.store import owners, people, shelf
from jolvek.web.kit.fields.merged import FILLED
from tests.web.stations.test_offer_sent import PRICED
from tests.web.steps import Forms, forms_to

# Forms that overwrite nothing that somebody else may have changed, and why.
ADDS = "adds something; what is there stays"
ACT = "one act, said by its button; done twice it is done once"
OWN = "the reader's own"
CHECKED = "goes by a mark of its own: what the page showed is compared"
FREE = {
    ADDS: "counter.keep counter.copy counter.open_file ask.send own_gear.add job.add people.add"
    " after_log.trip after_log.charge after_log.from_file after_parts.fault after_parts.part"
    " boat_page.trip boat_page.fault fleet.book trial.begin trial.run trial.from_file"
    " handover.step handover.fault keys.make recalls.begin families.take ownership.new_battery"
    " backups.make care_list.letters day_out.import_way boat.photo boat_page.answer trial.live"
    " assortment.begin aftercare.done recalls.answer",
    ACT: "counter.archive ask.looked own_gear.off job.part job.take job.model job.undo_last"
    " after_log.drop shortlist.pin shortlist.unpin shortlist.take_first side_by_side.choose"
    " side_by_side.extra"
    " offer.acknowledge offer.claims offer.stage repriced.today sent.link sent.seen"
    " sent.keep_order aftercare.shut trial.drop trial.use trial.suspected keys.drop"
    " people.invite people.leave history.back families.choose care_list.shut catalogue.undo"
    " waters.legs boat.start_from shop.test_mail shop.logo ownership.erase"
    " ownership.erase_former exchange.unpack day_out.keep after_parts.spare",
    OWN: "choices.choose account.password account.factor account.leave account.leave_all"
    " account.play sign_in.enter sign_in.set_password sign_in.choose boat.answer waters.answer"
    " api.predict api.match customer.total",
    CHECKED: "boat.save waters.save fitting.keep offer.send customer.answer handover.sign"
    " ownership.pass_on price_lists.preview price_lists.columns price_lists.confirm",
}
MERGED = {  # the form's endpoint, and a page that shows it
    "shop.save": "/settings",
    "people.change": "/people",
    "care_steps.save": "/care/steps",
    "catalogue.save": "/catalogue/motors/item/pellorin-t16",
    "stock.save": "/catalogue/motors/item/pellorin-t16",
    "offer.save": "/enquiry/5/offer",
    "trial.how": "/enquiry/5/trial",
    "handover.serial": "/enquiry/5/handover",
    "shortlist.keep_weights": "/enquiry/5/shortlist",
    "aftercare.speak": "/enquiry/5/aftercare",
}


@pytest.fixture
def owner(fitted):
    """The shop's owner, who may open every page."""
    fitted.post("/play", data={"role": "owner"})
    fitted.post("/settings", data=PRICED)
    return fitted


def test_every_form_carries_its_version_or_says_why_it_needs_none(app):
    posts = {r.endpoint for r in app.url_map.iter_rules() if "POST" in (r.methods or ())}
    free = {name for names in FREE.values() for name in names.split()}
    assert posts - free - set(MERGED) == set(), "a form without a version"
    assert free & set(MERGED) == set()


def address_of(app, endpoint):
    rule = next(r for r in app.url_map.iter_rules(endpoint))
    return re.compile(re.sub(r"<[^>]+>", "[^/]+", rule.rule) + "(?:\\?.*)?$")


class Buttons(HTMLParser):
    """The addresses of a page's buttons."""

    def __init__(self, html):
        super().__init__()
        self.found = []
        self.feed(html)

    def handle_starttag(self, tag, attrs):
        if tag == "button" and dict(attrs).get("formaction"):
            self.found.append(dict(attrs)["formaction"])


@pytest.mark.parametrize("endpoint", [x for x in MERGED if x != "shortlist.keep_weights"])
def test_a_form_says_just_what_it_is_filled_with(owner, app, endpoint):
    page = owner.get(MERGED[endpoint]).get_data(as_text=True)
    way = address_of(app, endpoint)
    forms = [f["fields"] for f in Forms(page).forms if way.match(f["action"])]
    forms = [f for f in forms if FILLED in f]
    assert forms, endpoint
    for fields in forms:
        for name, texts in json.loads(fields[FILLED]).items():
            shown = fields.get(name, "")
            shown = shown if isinstance(shown, list) else [shown]
            rows = [x for x in shown if x]
            assert rows == texts or (len(texts) > 1 and rows[-1:] == texts[-1:]), (endpoint, name)
        left = {"csrf_token", FILLED, "person", "product", "key", "what", "do"}
        assert set(fields) - left <= set(json.loads(fields[FILLED])), endpoint


def of(client, address, action, index=0):
    """A form as one opens it."""
    forms = [f for f in forms_to(client, address, action) if FILLED in f]
    return next((f for f in forms if f.get("key") == "line"), forms[index])


def twice(client, address, action, theirs, mine, index=0):
    """Two people open a form; both save, the second with an older page."""
    first, second = (of(client, address, action, index) for _ in range(2))
    assert client.post(action, data=first | theirs).status_code == 303
    return client.post(action, data=second | mine)


MOTOR = "/catalogue/motors/item/pellorin-t16"
TWICE = {
    "settings": ("/settings", "/settings", {"deposit": "11"}, {"follow_days": "9"}),
    "catalogue": (MOTOR, "/catalogue/motors/item", {"price": "1901"}, {"noise_db": "55"}),
    "stock": (
        MOTOR,
        "/catalogue/motors/stock/pellorin-t16",
        {"in_stock": "9"},
        {"supplier": "Quay"},
    ),
    "draft": (
        "/enquiry/5/offer",
        "/enquiry/5/offer",
        {"discount": "5", "y_years": "9"},
        {"free0_text": "Launching", "free0_price": "150"},
    ),
    "trial": ("/enquiry/5/trial", "/enquiry/5/trial/how", {"people": "3"}, {"full": "1"}),
    "step of care": (
        "/care/steps",
        "/care/steps",
        {"text": "Rinse it.", "do": "save"},
        {"hazard": "Hot."},
    ),
}


@pytest.mark.parametrize("name", TWICE)
def test_different_fields_of_two_savers_both_stay(owner, name):
    address, action, theirs, mine = TWICE[name]
    if name == "step of care":
        mine = mine | {"do": "save"}
    answer = twice(owner, address, action, theirs, mine)
    assert answer.status_code == 303, answer.text
    kept = of(owner, address, action)
    for field, value in {**theirs, **mine}.items():
        assert field == "do" or kept[field] == value, (field, kept[field])


@pytest.mark.parametrize("name", TWICE)
def test_the_same_field_asks_with_both_and_an_untouched_old_page_changes_nothing(owner, name):
    address, action, theirs, _ = TWICE[name]
    field = next(iter(theirs))
    other = {"price": "1950", "people": "4"}.get(field, "17")
    old = of(owner, address, action)
    save = {"do": "save"} if name == "step of care" else {}
    assert owner.post(action, data=old | theirs).status_code == 303
    assert owner.post(action, data=old | save).status_code == 303  # untouched
    assert of(owner, address, action)[field] == theirs[field]
    asked = owner.post(action, data=old | {field: other} | save)
    page = unescape(asked.text)
    assert asked.status_code == 422 and "while you were typing" in page
    assert f"<td>{theirs[field]}</td><td>{other}</td>" in page.replace("\n", "")
    assert of(owner, address, action)[field] == theirs[field]
    again = Forms(asked.get_data(as_text=True)).forms
    mine = next(f["fields"] for f in again if f["method"] == "post" and FILLED in f["fields"])
    assert owner.post(action, data=mine).status_code == 303  # keep yours
    kept = of(owner, address, action)
    assert kept[field] == other
    for x, value in theirs.items():
        assert x in (field, "do") or kept[x] == value  # what only they changed stays


def test_an_old_page_of_people_takes_no_role_back(owner, conn):
    number = people.add(conn, "vera", "Vera", "reader", "2026-12-01T00:00:00+00:00")
    index = [f["person"] for f in forms_to(owner, "/people", "/people/change")].index(str(number))
    old = of(owner, "/people", "/people/change", index)
    assert owner.post("/people/change", data=old | {"role": "rigger"}).status_code == 303
    assert owner.post("/people/change", data=old).status_code == 303
    assert people.by_id(conn, number).role == "rigger"
    left = {k: v for k, v in old.items() if k != "active"}
    owner.post("/people/change", data=left)
    found = people.by_id(conn, number)
    assert (found.role, bool(found.active)) == ("rigger", False)


def test_a_boat_is_passed_on_once(owner, conn):
    action = "/enquiry/2/aftercare/owner"
    form = forms_to(owner, "/enquiry/2/aftercare", action)[0]
    assert owner.post(action, data=form | {"new_customer": "Ana"}).status_code == 303
    again = owner.post(action, data=form | {"new_customer": "Bo"})
    assert again.status_code == 422 and "passed on to Ana meanwhile" in again.text
    assert len(owners.former(conn, 2)) == 1


def test_old_weights_take_none_of_a_colleagues_back(owner, conn):
    page = owner.get("/enquiry/5/shortlist").get_data(as_text=True)
    action = next(x for x in Buttons(page).found if "weights" in x)
    assert FILLED in action
    form = {f"w_{k}": v for k, v in (("price", "3"), ("light", "2"), ("range", "2"))}
    form |= {"w_speed": "1", "w_silence": "0", "w_hands_free": "0", "w_tidy": "0"}
    assert owner.post(action, data=form | {"w_price": "5"}).status_code == 303
    assert owner.post(action, data=form | {"w_range": "4"}).status_code == 303
    kept = Forms(owner.get("/enquiry/5/shortlist").get_data(as_text=True))
    fields = next(f["fields"] for f in kept.forms if "w_price" in f["fields"])
    assert (fields["w_price"], fields["w_range"]) == ("5", "4")
    asked = owner.post(action, data=form | {"w_price": "1"})
    assert asked.status_code == 422
    mine = next(f for f in Forms(asked.get_data(as_text=True)).forms if FILLED in f["fields"])
    assert owner.post(unescape(mine["action"]), data=mine["fields"]).status_code == 303
    kept = Forms(owner.get("/enquiry/5/shortlist").get_data(as_text=True))
    fields = next(f["fields"] for f in kept.forms if "w_price" in f["fields"])
    assert (fields["w_price"], fields["w_range"]) == ("1", "4")


def test_a_price_list_is_written_as_its_preview_showed_it(owner, conn):
    import io  # noqa: PLC0415

    item = shelf.get(conn, "motors", "pellorin-t16")
    exported = owner.get("/catalogue/motors/export.csv").get_data(as_text=True).splitlines()
    row = next(x for x in exported if x.startswith(item.id))
    assert f"{item.price:g}" in row
    csv = "\n".join([exported[0], row.replace(f"{item.price:g}", "2111", 1)]).encode()
    page = owner.post(
        "/catalogue/import", data={"kind": "motors", "file": (io.BytesIO(csv), "l.csv")}
    )
    html = page.get_data(as_text=True)
    form = next(f["fields"] for f in Forms(html).forms if f["action"].endswith("/confirm"))
    change = of(owner, MOTOR, "/catalogue/motors/item") | {"price": "1999"}
    assert owner.post("/catalogue/motors/item", data=change).status_code == 303
    late = owner.post("/catalogue/import/confirm", data=form)
    assert late.status_code == 422 and "changed since the preview" in late.text
    assert shelf.get(conn, "motors", "pellorin-t16").price == 1999
    shown = next(
        f["fields"]
        for f in Forms(late.get_data(as_text=True)).forms
        if f["action"].endswith("/confirm")
    )
    assert owner.post("/catalogue/import/confirm", data=shown | {"sure": "1"}).status_code == 303
    assert shelf.get(conn, "motors", "pellorin-t16").price == 2111


def test_a_damaged_form_is_refused_in_a_sentence(owner):
    form = of(owner, "/settings", "/settings") | {FILLED: "{"}
    answer = owner.post("/settings", data=form)
    assert answer.status_code == 422 and "load the page again" in answer.text


def test_a_setup_that_a_colleague_put_on_the_offer_stays_on_it(owner):
    """A box that was empty when the older page was filled."""
    address = "/enquiry/5/offer"
    answer = twice(owner, address, address, {"letter_B": "B"}, {"deposit": "40"})
    assert answer.status_code == 303
    kept = of(owner, address, address)
    assert (kept["letter_A"], kept["letter_B"], kept["deposit"]) == ("A", "B", "40")
