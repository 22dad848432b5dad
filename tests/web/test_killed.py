"""The server killed in the middle of its work: what was shown as kept is there, what was not is
not, and it starts again.
"""

import re
import signal
import socket
import subprocess
import sys
import time
import urllib.parse
import urllib.request
from http.cookiejar import CookieJar

import pytest

from jolvek.store import db, enquiries
from jolvek.store import shelf as shelf_store


def free_port():
    """A port that nobody listens at: two workers may be at this file."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


@pytest.fixture
def served(tmp_path):
    running = []

    def start():
        command = [
            sys.executable,
            "-m",
            "jolvek",
            "demo",
            "--data",
            str(tmp_path),
            "--port",
            str(free_port()),
        ]
        process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        running.append(process)
        for line in process.stdout:
            if found := re.search(r"http://[\d.:]+", line):
                return process, found[0]
        raise AssertionError("the server did not start")

    yield start, tmp_path
    for process in running:
        process.kill()
        process.wait()
        process.stdout.close()


def browser():
    return urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))


def token(page):
    return re.search(r'name="csrf_token" value="([^"]+)"', page)[1]


def test_a_kill_loses_nothing_that_was_kept(served):
    start, folder = served
    process, root = start()
    b = browser()
    page = b.open(f"{root}/enquiry/3/waters").read().decode()
    b.open(
        f"{root}/enquiry/3/waters/legs",
        urllib.parse.urlencode({"csrf_token": token(page), "make": "there"}).encode(),
    )
    process.send_signal(signal.SIGKILL)
    process.wait()
    conn = db.connect(folder / "jolvek.db")
    assert len(enquiries.get(conn, 3).need.day.legs) == 2
    conn.close()
    _, root = start()
    assert b"home" in browser().open(f"{root}/enquiry/3/waters").read()


def test_a_kill_in_the_middle_of_an_import_leaves_the_shelf_whole(served):
    start, folder = served
    process, root = start()
    b = browser()
    rows = "\n".join(f"kill-{i},Halvane,Leaf {i},100,50" for i in range(8000))
    body = f"id,maker,name,price,rated_w\n{rows}\n"
    page = b.open(f"{root}/catalogue/import").read().decode()
    parts = {"csrf_token": token(page), "kind": "panels"}
    payload = "".join(
        f'--x\r\nContent-Disposition: form-data; name="{k}"\r\n\r\n{v}\r\n'
        for k, v in parts.items()
    )
    payload += (
        '--x\r\nContent-Disposition: form-data; name="file"; filename="l.csv"\r\nContent-Type:'
        f" text/csv\r\n\r\n{body}\r\n--x--\r\n"
    )
    request = urllib.request.Request(
        f"{root}/catalogue/import",
        payload.encode(),
        {"Content-Type": "multipart/form-data; boundary=x"},
    )
    preview = b.open(request).read().decode()
    form = dict(re.findall(r'name="(token|kind)" value="([^"]*)"', preview)) | {
        "csrf_token": token(preview)
    }
    post = (
        "import sys, urllib.request as u; u.urlopen(u.Request(sys.argv[1], sys.argv[2].encode(),"
        " {'Cookie': sys.argv[3]}))"
    )
    cookies = "; ".join(
        f"{c.name}={c.value}" for h in b.handlers if hasattr(h, "cookiejar") for c in h.cookiejar
    )
    command = [
        sys.executable,
        "-c",
        post,
        f"{root}/catalogue/import/confirm",
        urllib.parse.urlencode(form),
        cookies,
    ]
    sender = subprocess.Popen(command, stderr=subprocess.DEVNULL)
    time.sleep(0.9)
    process.send_signal(signal.SIGKILL)
    sender.wait()
    conn = db.connect(folder / "jolvek.db")
    there = sum(x.id.startswith("kill-") for x in shelf_store.load(conn).panels)
    assert there in (0, 8000) and there == sum(
        batch.products for batch in shelf_store.batches(conn)
    )
    conn.close()
