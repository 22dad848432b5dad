"""One job, one thread: a figure stands on every page, paper and file as the same text."""

import json
import re
from collections import defaultdict
from dataclasses import replace
from html import unescape

import pytest
from click.testing import CliRunner

from jolvek import cli
from jolvek.core.enquiry.need import Leg
from jolvek.core.job import figures as core_figures
from jolvek.formats import enquiry_file
from jolvek.store import enquiries, offers, owners, setups
from jolvek.web.kit import figures, pdf
from jolvek.web.kit.worked import work_out
from tests.web.pages.made import AT_SEA
from tests.web.stations.test_offer_sent import tick
from tests.web.steps import boat_form, forms_to

PAGES = (
    "boat waters shortlist side-by-side side-by-side?by=day side-by-side.csv day-out day-out?s=B"
    " fitting fitting?tab=wiring fitting?tab=sheet boats offer handover trial aftercare"
).split()
PAPERS = ("side-by-side.pdf", "day-out.pdf", "fitting/sheet.pdf")
FIGURE = re.compile(r'<span data-figure="([^"]+)">(.*?)</span>', re.S)
RUNNING = re.compile(r"(?:(\d+)\s*h)?\s*(?:(\d+)\s*min)?")


def plain(text):
    """A figure without its unit: 2 h 23 min and 2:23 are one, "12.5 kn" and "12.5" too."""
    text = unescape(re.sub(r"<[^>]+>", "", text)).replace("\u202f", "").replace("\u00a0", " ")
    spent = RUNNING.fullmatch(text.strip())
    if spent and any(spent.groups()):
        return f"{int(spent[1] or 0)}:{int(spent[2] or 0):02d}"
    number = re.search(r"-?\d[\d.,:]*", text)
    return re.sub(r"[.,]0+$", "", number[0]) if number else text.strip()


@pytest.fixture
def papers(monkeypatch):
    """The HTML of every paper that is printed; tables keep their keys."""
    printed = []
    monkeypatch.setattr(pdf, "write", lambda html: printed.append(html) or b"%PDF-1.7")
    monkeypatch.setattr(figures, "_TEXTS", ("text/html",))
    return printed


def gathered(client, number, papers=None, pages=PAGES):
    """Key → text → the pages, papers and files that say so."""
    found = defaultdict(lambda: defaultdict(set))

    def note(text, place):
        for key, result in (*FIGURE.findall(text), *figures.MARKED.findall(text)):
            found[key][plain(result)].add(place)

    for page in pages if papers is None else (*pages, *PAPERS):
        answer = client.get(f"/enquiry/{number}/{page}")
        note("" if page in PAPERS else answer.get_data(as_text=True), page.split("?")[0])
        if page in PAPERS:
            note(figures.spans(papers.pop()), page)
    return found


def twice(found):
    """The keys that stand on two or more pages, papers or files."""
    return [k for k, texts in found.items() if len(set().union(*texts.values())) > 1]


def agreed(found):
    torn = {key: {k: sorted(v) for k, v in t.items()} for key, t in found.items() if len(t) > 1}
    assert torn == {}


def day(**changes):
    return lambda need: replace(need, day=replace(need.day, **changes))


def hull(**changes):
    return lambda need: replace(need, hull=replace(need.hull, **changes))


def trimaran(need):
    of_three = {"family": "multihull", "bodies": 3, "ama_share": 0.2}
    of_three |= {"length_m": 6.8, "beam_m": 4.6}
    sunny = {"solar_w": 300.0, "hotel_w": 40.0}
    return day(**sunny)(hull(**of_three, mass_kg=480.0, body_beam_m=None)(need))


def skiff(need):
    held = Leg("on the mark", 0.51, None, 4 * 3600.0, 0.51)
    out = Leg("out", 2.0, 4000.0, current_m_s=-0.51)
    home = Leg("home", 2.0, 4000.0, current_m_s=0.51, wind_m_s=4.0)
    return day(legs=(out, held, home))(hull(family="skiff")(need))


def without_plate(need):
    bare = {"max_motor_kg": None, "max_load_kg": None, "max_people": None}
    bare |= {"approval_power_w": None, "approval_thrust_n": None}
    return hull(max_power_w=None)(replace(need, site=replace(need.site, **bare)))


def two_lockers(need):
    first = need.site.bays[0]
    lockers = (replace(first, ahead_m=1.0, off_m=-0.8), replace(first, ahead_m=4.0, off_m=0.8))
    return replace(need, site=replace(need.site, bays=lockers))


JOBS = {  # the demo's boat that each is made of, and what is otherwise
    "kayak with a battery of the customer's own": (1, day()),
    "tender, four charges a day": (2, day(runs_per_day=8, charges_per_day=4, days_a_season=120.0)),
    "pontoon with two lockers": (5, two_lockers),
    "trimaran with sun": (4, trimaran),
    "boat on hire": (3, day(runs_per_day=3, days_a_season=90.0, charge_h=3.0)),
    "pod on a sailing boat": (4, day(wind_m_s=6.0, reserve_school="hour")),
    "skiff that holds a place": (3, skiff),
    "planing dinghy": (6, day(distance_m=3000.0)),
    "boat without a plate": (5, without_plate),
    "tried boat": (2, hull(friction_factor=1.25, tried_on="2026-09-01")),
    "wind all day, part charge": (
        3,
        day(wind_m_s=5.0, current_m_s=0.3, against="all day", start_charge=0.7),
    ),
    "far too far": (6, day(distance_m=90_000.0)),
}


@pytest.fixture
def edited(fitted, conn):
    """A client where one of the demo's jobs is changed by a function of its need."""

    def change(number, edit):
        enquiries.change(
            conn, number, lambda e: replace(e, need=edit(e.need)), "2026-12-01T00:00:00+00:00"
        )
        return fitted

    return change


def repinned(client, name, number):
    """The setup that the job is about in hand, where it is not the demo's."""
    if "own" in name:
        own = {"kind": "batteries", "volts": "12.8", "ah": "60", "mass": "7 kg", "amps": "60"}
        client.post(f"/enquiry/{number}/own", data={**own, "chemistry": "lfp"})
        forms = forms_to(client, f"/enquiry/{number}/shortlist?w_price=5", f"/enquiry/{number}/pin")
        client.post(f"/enquiry/{number}/unpin", data={"letter": "B"})
        mine = next(f for f in forms if f["battery"].startswith("own-gear-"))
        client.post(f"/enquiry/{number}/pin", data=mine)
    if name.startswith("pod"):
        forms = forms_to(client, f"/enquiry/{number}/shortlist", f"/enquiry/{number}/pin")
        client.post(f"/enquiry/{number}/unpin", data={"letter": "B"})
        pod = next(f for f in forms if f["motor"].startswith("pellorin-d"))
        client.post(f"/enquiry/{number}/pin", data=pod)
    if name.startswith("pontoon"):
        client.post(f"/enquiry/{number}/fitting", data={"w-battery": "4.0"})


@pytest.mark.parametrize("number", range(1, 7))
def test_no_figure_of_a_demo_job_has_two_texts(fitted, papers, number):
    found = gathered(fitted, number, papers)
    agreed(found)
    assert len(twice(found)) >= 60, sorted(twice(found))


@pytest.mark.parametrize("name", JOBS)
def test_no_figure_of_an_odd_job_has_two_texts(edited, papers, name):
    number, edit = JOBS[name]
    client = edited(number, edit)
    repinned(client, name, number)
    found = gathered(client, number, papers)
    agreed(found)
    assert len(twice(found)) >= 55, len(twice(found))  # fewer where the day is not done


def test_a_german_and_an_imperial_reader_see_one_text_too(fitted, conn, papers):
    fitted.post("/units", data={"speed": "mph", "length": "ft", "mass": "lb", "power": "hp"})
    agreed(gathered(fitted, 4, papers))
    fitted.post("/units", data={"language": "de"})
    owners.set_language(conn, 2, "de")  # what the customer reads speaks their language
    assert 'lang="de"' in fitted.get("/enquiry/2/boat").text
    agreed(gathered(fitted, 2, papers))


@pytest.mark.parametrize("number", [1, 5])
def test_the_command_says_what_the_pages_say(fitted, app, conn, papers, tmp_path, number):
    found = gathered(fitted, number, papers)
    need, p = enquiries.get(conn, number).need, setups.of_enquiry(conn, number)[0]
    job = work_out(need, p).job
    (tmp_path / "e.json").write_text(
        json.dumps(enquiry_file.write(enquiries.get(conn, number).enquiry))
    )
    named = [x for kind in ("motor", "battery", "mount", "charger") for x in named_part(p, kind)]
    layout = ["--series", str(p.series), "--parallel", str(p.parallel)]
    layout += ["--shaft", str(p.shaft_m)] if p.shaft_m else []
    done = CliRunner().invoke(cli.main, ["fit", str(tmp_path / "e.json"), *named, *layout])
    result = json.loads(done.output)["figures"]
    assert len(result) > 30
    with app.test_request_context():
        for key, value in result.items():
            f = replace(core_figures.figure(job, key), value=value)
            assert {plain(figures.written(f, AT_SEA))} >= set(found.get(f"A.{key}", {})), key


def named_part(p, kind):
    part = p.part(kind)
    return [f"--{kind}", part.item.id] if part else []


def test_the_offers_total_is_the_fitted_price_of_every_list(fitted, conn):
    """Nothing else on the offer: no add-on, no service, no discount; prices hold their tax."""
    fitted.post("/play", data={"role": "owner"})
    rates = {"fitting_rate": "78", "wiring_rate": "85", "cable_price": "0.6", "piece_price": "13"}
    fitted.post(
        "/settings", data={"name": "Ferrowick", "currency": "EUR", **rates, "tax_included": "1"}
    )
    fitted.post("/play", data={"role": "advisor"})
    for number in (1, 2, 5):
        compared = fitted.get(f"/enquiry/{number}/side-by-side").get_data(as_text=True)
        price = dict(FIGURE.findall(compared))["A.price.fitted"]
        listed = fitted.get(f"/enquiry/{number}/shortlist").get_data(as_text=True)
        offer = fitted.get(f"/enquiry/{number}/offer").get_data(as_text=True)
        whole = unescape(offer).replace("\u202f", "").replace("\u00a0", " ")
        figure = plain(price)
        assert re.search(rf"Total.*?{re.escape(figure)}(?:\.00)?\b", whole, re.S), number
        assert figure in unescape(listed).replace("\u202f", ""), number


def test_what_is_found_of_the_day_stands_on_every_page_and_is_confirmed_before_sending(
    edited, fitted, conn
):
    edited(2, day(charges_per_day=4, charge_h=2.0, runs_per_day=8, days_a_season=120.0))
    job = work_out(enquiries.get(conn, 2).need, setups.of_enquiry(conn, 2)[0]).job
    rules = {f.rule for f in job.findings}
    assert rules & {"charges-a-day", "runs-a-charge"}
    for page in ("side-by-side", "offer", "fitting?tab=sheet"):
        text = fitted.get(f"/enquiry/2/{page}").get_data(as_text=True)
        for rule in rules & {"charges-a-day", "runs-a-charge", "below-reserve"}:
            found = next(f for f in job.findings if f.rule == rule)
            assert found.cure in unescape(text), (page, rule)


def test_a_stop_of_the_sea_is_a_stop_of_the_offer(edited, fitted):
    edited(2, day(wind_m_s=14.0))
    assert "cannot be offered" in fitted.get("/enquiry/2/offer").text
    assert "Offer A" not in fitted.get("/enquiry/2/waters").text


def test_the_customers_page_and_paper_say_what_the_stations_say(fitted, conn, papers):
    """Frozen as it was sent, worked out again on the stations: nothing has changed between."""
    form = boat_form(fitted, 5) | {"mail": "runa@vik.example"}
    fitted.post("/enquiry/5/boat", data=form)
    fitted.post("/enquiry/5/offer", data={"letter_A": "A", "letter_B": "B"})
    tick(fitted)
    assert fitted.post("/enquiry/5/offer/send", data={"mail": "1"}).status_code == 303
    frozen = defaultdict(lambda: defaultdict(set))
    (made,) = offers.of_enquiry(conn, 5)
    link = f"/o/{offers.make_link(conn, made.id, '2099-01-01')}"
    page = fitted.application.test_client().get(link).get_data(as_text=True)
    for place, text in (("customer", page), ("offer paper", figures.spans(papers.pop()))):
        for key, result in FIGURE.findall(text):
            frozen[key][plain(result)].add(place)
    live = gathered(fitted, 5)
    both = [k for k in frozen if k in live]
    assert len(both) > 20 and {p for t in frozen.values() for p in set().union(*t.values())} == {
        "customer",
        "offer paper",
    }
    agreed({k: {**live[k], **frozen[k]} for k in both})
