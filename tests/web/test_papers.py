"""Every paper: tagged, its fonts within, whose and of which day on each page, nothing too small."""

import io
import re
from datetime import date
from pathlib import Path

import pytest
from markupsafe import Markup
from pypdf import PdfReader

from jolvek import demo
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.kit import pdf
from jolvek.web.kit.dates import day
from jolvek.web.settings import Settings

CLUB = 14
PAPERS = {
    "side-by-side.pdf": "Side by side",
    "day-out.pdf": "Day out",
    "fitting/sheet.pdf": "fitting sheet",
    "aftercare/owner/copy.pdf": "all that is kept",
}


@pytest.fixture(scope="module")
def read(app_module):
    found = {}

    def reader(way):
        if way not in found:
            answer = app_module.get(f"/enquiry/{CLUB}/{way}")
            assert answer.status_code == 200 and answer.mimetype == "application/pdf"
            found[way] = PdfReader(io.BytesIO(answer.data))
        return found[way]

    return reader


@pytest.fixture(scope="module")
def app_module(tmp_path_factory, working):
    folder = tmp_path_factory.mktemp("papers")
    conn = db.connect(folder / "jolvek.db")
    working.backup(conn)
    conn.close()
    app = create_app(Settings(folder, "demo", demo.DEALER, demo=True))
    app.config["WTF_CSRF_ENABLED"] = False
    return app.test_client()


def sizes(page):
    """Points of each text on a page as it is printed."""
    out = []

    def text(said, cm, tm, _font, size):
        if said.strip():
            up = abs(tm[3] * cm[3]) or abs(tm[1] * cm[1]) or abs(tm[1] * cm[2])
            out.append((size * up, said.strip()))

    page.extract_text(visitor_text=text)
    return out


def test_a_picture_on_paper_carries_its_own_style(app_module):
    with app_module.application.app_context():
        text = str(
            pdf.styled(Markup("<svg><title>Day</title></svg>"), "stations/day_out/paper.css")
        )
        static = Path(app_module.application.static_folder)
    assert text.index("<style>") < text.index(".powerarea") < text.index("<title>Day")
    drawn = '<svg class="drawing leg-view"><title>Leg</title></svg>'
    paper = pdf._inked(f"<p>{drawn}{text}</p>", static)
    assert paper.count("<style>") == 2 and "var(" not in paper
    assert re.search(r"leg-view\"><style>[^<]*\.motor \{\s*fill: #2F6B57;", paper)


@pytest.mark.parametrize(("way", "named"), PAPERS.items())
def test_a_paper_is_tagged_named_dated_and_large_enough(read, way, named):
    paper = read(way)
    root = paper.trailer["/Root"]
    assert "/StructTreeRoot" in root and root["/MarkInfo"]["/Marked"]
    assert str(root["/Lang"]) == "en" and paper.metadata.title
    for i, page in enumerate(paper.pages, start=1):
        text = re.sub(r"\s+", " ", page.extract_text())
        assert f"{i} / {len(paper.pages)}" in text
        assert "Club safety boat" in text or "Ferrowick Sailing" in text
        assert named in text
        for font in page["/Resources"].get("/Font", {}).values():
            result = font.get_object()["/DescendantFonts"][0].get_object()["/FontDescriptor"]
            assert {"/FontFile", "/FontFile2", "/FontFile3"} & set(result.get_object())
        small = [x for x in sizes(page) if x[0] < 7.9]
        assert not small, small[:5]
    if named:
        assert day(date.today()) in paper.pages[0].extract_text()
