"""The languages of pages and papers: nothing untranslated, nothing unused, no English left on a
page of another language, days and figures as each writes them; what is sent follows the customer,
the screens their reader.
"""

import io
import re
from datetime import date
from email import message_from_bytes
from email.policy import SMTP
from html import unescape

import pytest
from pypdf import PdfReader

from jolvek.store import offers, owners
from jolvek.web.kit.accounts import links
from jolvek.web.kit.language import LANGUAGES, SCREENS
from scripts import messages
from tests.web.steps import STATIONS

OTHERS = [x for x in LANGUAGES if x != "en"]
PERLE = 10
SAME = {  # written alike in that language
    *"#Wh;Bank;Board;Budget;Budget, %(unit)s;CSV;Instrument;Jolvek;Jolvek, %(shop)s;Lithium".split(
        ";"
    ),
    *"Logo;Mail;Motor;Name;Person;Plan;Propeller;Wh;Wind;Wind, %(unit)s;Charge;Kayak;Trim"
    ";Total".split(";"),
    *"charge, %;kayak;pack %(i)s;Stop;later;open;Cables;Photo;%(figure)s MB;anode;1 set".split(";"),
    "%(name)s: %(role)s.",
    "motor",
    *"%(shown)s · Jolvek;%(title)s · Jolvek;jolvek backup --into;jolvek restore".split(";"),
    *"%(n)s pack;%(n)s point;%(n)s product;Danger;%(volts)s V %(ah)s Ah;%(m)s m".split(";"),
}
OF_THE_DEMO = {"Stern plate with pedals", "Life jacket cartridge"}  # a product, what an owner typed


def long_ones(whole):
    """Messages that a page of another language cannot hold by chance."""
    return [x for x in ids(whole) - OF_THE_DEMO if len(x) > 17 and not re.search(r"[%{<*]", x)]


@pytest.fixture(scope="module")
def found():
    return messages.found()


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    client.post("/play", data={"role": "owner"})
    return client


@pytest.fixture(scope="module")
def whole(found):
    return found[0]


def wanted(found, language):
    whole, customers = found
    return whole if language in SCREENS else messages.part(whole, customers)


def ids(catalogue):
    return {m.id[0] if isinstance(m.id, tuple) else m.id for m in catalogue if m.id}


@pytest.mark.parametrize("language", OTHERS)
def test_every_message_is_translated_none_is_unused_and_places_stay(found, language):
    mine = messages.kept(language)
    assert ids(mine) == ids(wanted(found, language))
    for m in mine:
        if not m.id:
            continue
        one = m.id[0] if isinstance(m.id, tuple) else m.id
        result = m.string if isinstance(m.string, tuple) else (m.string,)
        assert all(result), one
        for text in result:
            assert messages.places(text) == messages.places(one), one
            assert text.count("%%") == one.count("%%"), one
        assert one in SAME or result[0] != one, one


def way_of(app, number):
    with app.test_request_context():
        return f"/b/{links.token('boat', number)}"


@pytest.mark.parametrize("language", LANGUAGES)
def test_a_boats_page_is_all_of_one_language(desk, app, conn, whole, language):
    way = way_of(app, PERLE)
    stranger = app.test_client()
    page = stranger.get(f"{way}?lang={language}").text
    assert f'<html lang="{language}"' in page
    main = re.sub(r"<[^>]+>", " ", page.split("<main")[1].split("</main")[0])
    main = re.sub(r"\s+", " ", main)
    if language == "en":
        assert "Log a trip" in main and "due" in main
    else:
        assert not [x for x in long_ones(whole) if x in main]
        assert "Caution" not in main and "trip" not in main
    year = str(date.today().year)
    assert {"de": f"16.12.{year}", "fr": "16 déc.", "nl": "16 dec", "es": "16 dic", "en": "16 Dec"}[
        language
    ] in main or "2026" in main
    bad = stranger.post(f"{way}/trip?lang={language}", data={"hours": ""})
    assert bad.status_code == 422 and f'<html lang="{language}"' in bad.text
    done = stranger.post(f"{way}/trip?lang={language}", data={"hours": "1 h"})
    assert f"lang={language}" in done.location


def test_the_customers_language_is_that_of_page_sticker_and_letters(desk, app, conn):
    here = f"/enquiry/{PERLE}/aftercare"
    assert desk.post(f"{here}/language", data={"language": "xx"}).status_code == 422
    desk.post(f"{here}/language", data={"language": "nl"})
    assert owners.language_of(conn, PERLE) == "nl"
    assert "Noteer een tocht" in app.test_client().get(way_of(app, PERLE)).text
    label = PdfReader(io.BytesIO(desk.get(f"{here}/label.pdf").data))
    text = re.sub(r"\s+", " ", label.pages[0].extract_text())
    assert "De pagina van deze boot" in text
    assert str(label.trailer["/Root"]["/Lang"]) == "nl"
    desk.post("/care/letters", data={"span": "due"})
    desk.post("/care/recalls", data={"batch": "K25", "title": "Plug", "words": "Stop."})
    sql = "SELECT enquiry_id, mail FROM outbox ORDER BY id"
    values = {
        (row["enquiry_id"] == PERLE): message_from_bytes(bytes(row["mail"]), policy=SMTP)
        for row in conn.execute(sql)
        if b"/recall" not in bytes(row["mail"]).replace(b"=\r\n", b"")
    }
    assert "Onderhoud van" in values[True]["Subject"] and "Care of" in values[False]["Subject"]
    body = values[True].get_body().get_content()
    assert "Na het seizoen: accu" in body and "After the season" not in body
    paper = PdfReader(io.BytesIO(desk.get("/care/recalls/1/letters.pdf").data))
    pages = [re.sub(r"\s+", " ", p.extract_text()) for p in paper.pages]
    mine = sum("zit dit onderdeel" in p for p in pages)
    assert mine >= 3  # motor, pack and charger
    assert sum("is this part" in p for p in pages) == len(pages) - mine


def test_the_shops_own_pages_stay_english_after_a_letter(desk, conn):
    owners.set_language(conn, PERLE, "fr")
    page = desk.post("/care/letters", data={"span": "due"}, follow_redirects=True).text
    assert '<html lang="en"' in page


POINT = re.compile(r"(?<![\d.,])\d{1,4}\.\d+(?![\d.])")  # in a figure
NORMS = re.compile(r"CFR [\d.]+(?: und [\d.]+)?|UN[ -]38\.3")  # keep theirs


DESK = (
    "/",
    "/catalogue/",
    "/catalogue/batteries",
    "/care/figures",
    "/care",
    "/care/fleet",
    "/care/steps",
    "/rules",
    "/rules/predictions",
    "/settings",
    "/people",
)


def pieces_of(page):
    """What a page says to the eye between its tags, without its own customers' words."""
    shown = re.sub(r"<(script|style|textarea)\b.*?</\1>", " ", page, flags=re.S)
    return [" ".join(unescape(x).split()) for x in re.split(r"<[^>]+>", shown)]


def typed_in(page):
    """What stands in the text fields of a page, and what is told of a picture or field."""
    fields = r'<input(?![^>]*type="(?:range|hidden|radio|checkbox)")[^>]*?value="([^"]*)"'
    return [
        unescape(x)
        for way in (fields, r'(?:aria-label|title)="([^"]*)"')
        for x in re.findall(way, page)
    ]


@pytest.fixture(scope="module")
def in_german():
    """Every message with its German where that is another word."""
    values = {m.id: m.string for m in messages.kept("de") if isinstance(m.id, str) and m.id}
    return {k: v for k, v in values.items() if k != v}


@pytest.fixture
def german(desk, conn):
    desk.post("/units", data={"language": "de"})
    owners.set_language(conn, 9, "de")  # whose paper the Offer shows
    return desk


TABS = (
    "fitting?tab=wiring",
    "fitting?tab=sheet",
    "fitting?tab=mounts",
    "by-hand?motor=tallmarrow-p65",
    "trial",
)
HERE = (*STATIONS, *TABS, "handover", "aftercare")


@pytest.mark.parametrize("way", (*DESK, *(f"/enquiry/9/{x}" for x in HERE)))
def test_the_screens_of_one_who_reads_german_have_no_english_message_left(
    german, whole, in_german, way
):
    page = german.get(way, follow_redirects=True)
    assert page.status_code == 200 and '<html lang="de"' in page.text
    pieces = pieces_of(page.text)
    result = " ".join(pieces)
    assert [x for x in long_ones(whole) if x in result] == []
    batch = {"Charge"}  # in German
    assert set(pieces) & set(in_german) - OF_THE_DEMO - batch == set()
    assert not re.search(r'type="range"[^>]*\bvalue="[^"]*,', page.text)  # no slider reads it
    assert [x for x in (*pieces, *typed_in(page.text)) if POINT.search(re.sub(NORMS, "", x))] == []


def test_the_figure_at_the_cursor_stands_in_each_language(german):
    page = german.get("/enquiry/9/side-by-side").text
    assert re.search(r'Leistung bei\s*<span x-text="speedText">4,2', page)


def test_what_is_not_there_or_not_for_one_is_told_in_ones_language(german):
    for way, code, title in (
        ("/nowhere", 404, "Nicht gefunden"),
        ("/people", 403, "Nicht erlaubt"),
    ):
        german.post("/play", data={"role": "advisor"})
        german.post("/units", data={"language": "de"})
        page = german.get(way)
        assert page.status_code == code and f"{title}</h1>" in page.text
        assert "Anfragen" in page.text and "signed in" not in page.text


def test_a_language_is_ones_own_and_an_unknown_one_is_not_taken(desk, app, conn):
    desk.post("/units", data={"language": "de"})
    assert "Offene Anfragen" in desk.get("/").text
    other = app.test_client()
    other.post("/play", data={"role": "advisor"})
    assert "Open enquiries" in other.get("/").text
    assert desk.post("/units", data={"language": "fr"}).status_code == 303  # no French screens
    assert "Offene Anfragen" in desk.get("/").text


def test_what_strangers_see_follows_their_browser(app):
    ask = app.test_client().get("/ask", headers={"Accept-Language": "fr-CH,fr;q=0.9"}).text
    assert '<html lang="fr"' in ask and "Votre bateau" in ask
    enter = app.test_client().get("/sign-in", headers={"Accept-Language": "de"}).text
    assert '<html lang="de"' in enter and "Anmelden" in enter


SENT = {
    "de": ("Teil oder Arbeit", "Summe", "Ihren Tag", "verzinnt"),
    "fr": ("Pièce ou travail", "Total", "votre journée", "étamé"),
    "nl": ("Onderdeel of werk", "Totaal", "uw dag", "vertind"),
    "es": ("Pieza o trabajo", "Total", "su día", "estañado"),
}


@pytest.mark.parametrize("language", OTHERS)
def test_an_offer_is_of_its_customers_language_on_paper_and_link(desk, app, conn, whole, language):
    here = "/enquiry/9/offer"
    owners.set_language(conn, 9, language)
    draft = desk.get(here).text
    assert "What the offer includes" in draft  # the shop drafts in its own language
    assert SENT[language][0] in draft  # and sees the paper as its customer will
    keys = re.findall(r'name="caution"\s+value="([^"]+)"', draft)
    desk.post(f"{here}/acknowledge", data={"caution": [unescape(k) for k in keys]})
    after = re.search(r'name="after"\s+value="(\d+)"', draft)
    assert desk.post(f"{here}/send", data={"after": after[1] if after else "0"}).status_code == 303
    sent = offers.of_enquiry(conn, 9)[0]
    assert offers.content(conn, sent.id)["language"] == language
    paper = PdfReader(io.BytesIO(offers.pdf(conn, sent.id)))
    text = re.sub(r"\s+", " ", " ".join(p.extract_text() for p in paper.pages))
    assert str(paper.trailer["/Root"]["/Lang"]) == language
    link = f"/o/{offers.make_link(conn, sent.id, '2099-01-01')}"
    page = " ".join(pieces_of(app.test_client().get(link).text))
    for result in (text, page):
        named = SENT[language] if result is text else SENT[language][2:]
        assert [x for x in named if x not in result] == []
        assert [x for x in long_ones(whole) if x in result] == []
        assert "Home at" not in result and " end between" not in result
        assert re.search(r"\d,\d\d\s*€|€\s*[\d\s]*\d,\d\d", result)
        assert re.search(r"\d,\d\s(kn|nm)", result) and not POINT.findall(re.sub(NORMS, "", result))
    refused = app.test_client().post(link, data={"do": "accepted"})
    assert refused.status_code == 422 and f'<html lang="{language}"' in refused.text
    assert "What the offer includes" in desk.get(here).text  # and goes on in its own


PRINTED = {
    "side-by-side.pdf": "Vergleich",
    "day-out.pdf": "Zurück um",
    "aftercare/label.pdf": "Boot",
}


@pytest.mark.parametrize("paper", PRINTED)
def test_papers_follow_the_customer(desk, conn, whole, paper):
    owners.set_language(conn, 9, "de")
    printed = PdfReader(io.BytesIO(desk.get(f"/enquiry/9/{paper}").data))
    text = re.sub(r"\s+", " ", " ".join(p.extract_text() for p in printed.pages))
    assert PRINTED[paper] in text and [x for x in long_ones(whole) if x in text] == []
    assert POINT.findall(re.sub(NORMS, "", text)) == []


def test_what_other_programs_read_says_the_same_to_all(german):
    table = german.get("/enquiry/9/side-by-side.csv")
    assert table.status_code == 200 and "Geschwindigkeit" not in table.text
    assert "speed" in table.text and re.search(r"\d\.\d", table.text)


def test_a_template_keeps_tags_figures_and_percent_signs(app):
    source = '<p>At {{ x }} % <a href="/{{ x }}">see *{{ y }}*</a>, 5 % more.</p>{{ y }}'
    with app.test_request_context():
        shown = app.jinja_env.from_string(source).render(x=7, y="<b>")
    assert shown == '<p>At 7 % <a href="/7">see *&lt;b&gt;*</a>, 5 % more.</p>&lt;b&gt;'
