"""The languages of what a customer gets: nothing untranslated, nothing unused, no English left on a
page of another language, days as each writes them; what is mailed and printed follows the customer.
"""

import io
import re
from datetime import date
from email import message_from_bytes
from email.policy import SMTP

import pytest
from pypdf import PdfReader

from jolvek.store import owners
from jolvek.web.accounts import links
from jolvek.web.view.language import LANGUAGES
from scripts import messages

OTHERS = [x for x in LANGUAGES if x != "en"]
PERLE = 10
SAME = {"Photo", "later"}  # the same word in French, and in Dutch


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    client.post("/play", data={"role": "owner"})
    return client


@pytest.fixture(scope="module")
def whole():
    return messages.found()


def ids(catalogue):
    return {m.id[0] if isinstance(m.id, tuple) else m.id for m in catalogue if m.id}


@pytest.mark.parametrize("language", OTHERS)
def test_every_message_is_translated_none_is_unused_and_places_stay(whole, language):
    mine = messages.kept(language)
    assert ids(mine) == ids(whole)
    for m in mine:
        if not m.id:
            continue
        one = m.id[0] if isinstance(m.id, tuple) else m.id
        told = m.string if isinstance(m.string, tuple) else (m.string,)
        assert all(told), one
        for text in told:
            assert messages.places(text) == messages.places(one), one
            assert text.count("%%") == one.count("%%"), one
        assert one in SAME or told[0] != one, one
    path = messages.path_of(language, "mo")
    assert path.read_bytes() == messages.compiled(mine)  # compiled anew after the last change


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
        long = [x for x in ids(whole) if len(x) > 14 and "%" not in x]
        assert not [x for x in long if x in main]
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
    told = {
        (row["enquiry_id"] == PERLE): message_from_bytes(bytes(row["mail"]), policy=SMTP)
        for row in conn.execute(sql)
        if b"/recall" not in bytes(row["mail"]).replace(b"=\r\n", b"")
    }
    assert "Onderhoud van" in told[True]["Subject"] and "Care of" in told[False]["Subject"]
    body = told[True].get_body().get_content()
    assert "Na het seizoen: accu" in body and "After the season" not in body
    paper = PdfReader(io.BytesIO(desk.get("/care/recalls/1/letters.pdf").data))
    pages = [re.sub(r"\s+", " ", p.extract_text()) for p in paper.pages]
    assert sum("zit dit onderdeel" in p for p in pages) == 3  # motor, pack and charger
    assert sum("is this part" in p for p in pages) == len(pages) - 3


def test_the_shops_own_pages_stay_english_after_a_letter(desk, conn):
    owners.set_language(conn, PERLE, "fr")
    page = desk.post("/care/letters", data={"span": "due"}, follow_redirects=True).text
    assert '<html lang="en"' in page
