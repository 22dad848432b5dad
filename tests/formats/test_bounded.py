"""No file costs more than a stated limit, and what cannot be read is named; the rest is kept."""

import io
import time
import zipfile

import numpy as np
import pytest
from geographiclib.geodesic import Geodesic

from jolvek.formats import care_log, gpx_file, gpx_points, log_file, tables
from jolvek.formats.budget import Budget, TooDear
from jolvek.formats.schema import UnreadableFile
from jolvek.store import backups


def workbook(rows):
    """A spreadsheet of a head and of empty rows, as small as one makes it."""
    head = '<row r="1"><c t="inlineStr"><is><t>id</t></is></c></row>'
    sheet = '<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">'
    sheet += f"<sheetData>{head}{'<row/>' * rows}</sheetData></worksheet>"
    good = tables.as_xlsx([["id"], ["a"]], "x")
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(good)) as old, zipfile.ZipFile(out, "w", 8) as new:
        for name in old.namelist():
            new.writestr(name, sheet if name.endswith("sheet1.xml") else old.read(name))
    return out.getvalue()


@pytest.mark.parametrize("rows", [300_000, 3_000_000])
def test_a_spreadsheet_of_empty_rows_ends_with_one_sentence(rows):
    made = workbook(rows)
    began = time.process_time()
    with pytest.raises(UnreadableFile, match=r"rows.*allowed"):
        tables.csv_of_xlsx(made)
    assert time.process_time() - began < 20  # a bound, not a speed: it took for ever


def test_a_few_empty_rows_are_left_out():
    assert tables.csv_of_xlsx(workbook(500)).split() == ["id"]


def test_a_budget_ends_by_rows_and_by_the_processors_time():
    with pytest.raises(TooDear, match="more than 3 rows were read"):
        for _ in iter(Budget(3).spend, 1):
            pass
    spent = Budget(10**9, 0.0)
    with pytest.raises(TooDear, match="reading stopped after 100 rows"):
        for _ in range(200):
            spent.spend()


def gpx(points, kind="trkpt"):
    body = "".join(f'<trkpt lat="{a}" lon="{o}"><time>{t}</time></trkpt>' for a, o, t in points)
    return f"<gpx><trk><trkseg>{body}</trkseg></trk></gpx>".encode()


def at(n):
    return f"2026-07-0{1 + n // 86400}T{n // 3600 % 24:02}:{n // 60 % 60:02}:{n % 60:02}Z"


def test_fifty_thousand_points_are_a_way_and_a_track_and_one_more_is_refused():
    rng = np.random.default_rng(3)
    walk = np.cumsum(rng.normal(0, 1e-5, (50_000, 2)), axis=0) + (58.0, 11.0)
    points = [(a, o, at(i)) for i, (a, o) in enumerate(walk.tolist())]
    way = gpx_file.read(gpx(points), 1.5)
    far = sum(leg.distance_m for leg in way.legs)
    part = walk[:2000]
    true = sum(Geodesic.WGS84.Inverse(*a, *b)["s12"] for a, b in zip(part, part[1:], strict=False))
    short = gpx_file.read(gpx(points[:2000]), 1.5)
    assert sum(leg.distance_m for leg in short.legs) == pytest.approx(true, rel=1e-6) and far > true
    assert len(log_file.track(gpx(points))) == 49_999
    with pytest.raises(gpx_points.GpxRefused, match="more than 50000 points were read"):
        gpx_file.read(gpx([*points, points[0]]), 1.5)


def test_distance_and_course_are_those_of_the_geodesic():
    """Against geographiclib (Karney 2013), short and long."""
    rng = np.random.default_rng(4)
    for size in (1e-4, 1e-2, 1.0):
        a = np.column_stack([rng.uniform(-70, 70, 40), rng.uniform(-179.99, 179.99, 40)])
        b = a + rng.normal(0, size, a.shape)
        far, course = gpx_file.between(a, b)
        for i in range(40):
            true = Geodesic.WGS84.Inverse(*a[i], *b[i])
            assert far[i] == pytest.approx(true["s12"], rel=2e-6)
            assert abs((course[i] - true["azi1"] + 180) % 360 - 180) < 0.05


BAD = [("nan", "11", at(2)), ("58", "inf", at(3)), ("95", "11", at(4)), ("north", "11", at(5))]


def test_bad_points_are_named_and_the_good_ones_kept():
    good = [(58 + i * 1e-4, 11.0, at(i)) for i in range(0, 60, 10)]
    found = gpx_points.read(gpx([*good, *BAD]))
    assert len(found.points) == 6 and len(found.left_out) == 4
    assert found.left_out[0] == "point 7: read “nan”, “11”; allowed is -90 to 90 and -180 to 180"
    assert gpx_file.read(gpx([*good, *BAD]), 1.5).left_out == found.left_out
    assert all(np.isfinite(s.speed_m_s) for s in log_file.track(gpx([*BAD, *good])))


@pytest.mark.parametrize("reader", [lambda x: gpx_file.read(x, 1.5), log_file.track])
def test_a_doctype_is_refused_by_its_line(reader):
    text = b'<?xml version="1.0"?>\n<!DOCTYPE gpx [<!ENTITY a "b">]>\n<gpx/>'
    with pytest.raises(Exception, match="line 2: the file declares entities"):
        reader(text)


def test_rows_that_are_no_numbers_are_named_and_the_rest_of_a_log_kept():
    log = b"t,sog,watts\nnan,4,500\n0,4.0,500\n1,inf,500\n2,4.1,nan\n3,4.2,505\n"
    found = log_file.samples(log, {}, "kn")
    assert [s.t_s for s in found] == [0.0, 3.0]
    assert [x.split(":")[0] for x in found.left_out] == ["line 2", "line 4", "line 5"]
    trips, _ = care_log.read(b"day,hours,Wh\n2026-07-03,nan,900\n2026-07-04,2,800\n", "log.csv", "")
    assert [t["hours"] for t in trips] == [2.0] and "line 2: read “nan”" in trips.left_out[0]


def test_a_backup_that_unpacks_to_far_more_is_refused_before_it_is_unpacked(tmp_path):
    bomb = tmp_path / "bomb.zip"
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as z:
        z.writestr("jolvek.db", b"\0" * 50_000_000)
        text = '{"format": "jolvek-backup", "version": 1, "files": {"jolvek.db": "x"}}'
        z.writestr("manifest.json", text)
    with pytest.raises(backups.BackupRefused, match="no shop's data shrink so much"):
        backups.restore(bomb, tmp_path / "new")
    assert [p.name for p in tmp_path.iterdir()] == ["bomb.zip"]
