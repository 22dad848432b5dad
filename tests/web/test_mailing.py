"""Mail by SMTP (RFC 5321) against a server in this process; what is refused does not hold up what
waits behind it.
"""

import socket
import threading
from dataclasses import replace
from email.message import EmailMessage
from email.policy import SMTP

import pytest
from aiosmtpd.controller import Controller

from jolvek.shop import letters
from jolvek.standins.post import FolderPost, Refused
from jolvek.web.mailing import SmtpPost, post_of
from jolvek.web.settings import Settings


class Server:
    """Keeps what it is handed; knows no `nobody`."""

    def __init__(self):
        self.got, self.lock = [], threading.Lock()

    async def handle_RCPT(self, _server, _session, envelope, address, _options):  # noqa: N802
        if address.startswith("nobody"):
            return "550 no such person"
        envelope.rcpt_tos.append(address)
        return "250 OK"

    async def handle_DATA(self, _server, _session, envelope):  # noqa: N802
        with self.lock:
            self.got.append((envelope.mail_from, envelope.rcpt_tos, envelope.content))
        return "250 taken"


@pytest.fixture
def server():
    kept = Server()
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        kept.port = free.getsockname()[1]
    running = Controller(kept, hostname="127.0.0.1", port=kept.port)
    running.start()
    yield kept
    running.stop()


def mail(to):
    out = EmailMessage(policy=SMTP)
    out["From"], out["To"], out["Subject"] = "shop@kelp.example", to, "Offer ø"
    out.set_content("words")
    out.add_attachment(b"%PDF-1.7", maintype="application", subtype="pdf", filename="o.pdf")
    return out.as_bytes()


def test_a_mail_comes_whole_and_keeps_its_name(server):
    post = SmtpPost("127.0.0.1", server.port, "none")
    for _ in range(2):
        post.hand_on(7, "runa@vik.example", mail("runa@vik.example"))
    (sender, to, body), again = server.got
    assert (sender, to) == ("shop@kelp.example", ["runa@vik.example"])
    assert b"Message-ID: <7@kelp.example>" in body and b"Message-ID: <7@" in again[2]
    assert b"o.pdf" in body
    with pytest.raises(Refused, match="no such person"):
        post.hand_on(8, "nobody@vik.example", mail("nobody@vik.example"))


def test_what_is_refused_waits_and_the_rest_goes_on(server, conn):
    for to in ("nobody@vik.example", "runa@vik.example"):
        conn.execute(
            "INSERT INTO outbox (at, recipient, mail) VALUES ('now', ?, ?)", (to, mail(to))
        )
    assert letters.hand_on(conn, SmtpPost("127.0.0.1", server.port, "none"), "now") == 1
    assert [x[1] for x in server.got] == [["runa@vik.example"]]
    waits = conn.execute("SELECT recipient FROM outbox WHERE written_at = ''").fetchall()
    assert [x[0] for x in waits] == ["nobody@vik.example"]
    away = SmtpPost("127.0.0.1", 1, "none")
    assert letters.hand_on(conn, away, "now") == 0


def test_the_settings_choose_the_post(tmp_path):
    plain = Settings(tmp_path, "secret")
    assert isinstance(post_of(plain), FolderPost)
    result = replace(plain, smtp_host="mail.example", smtp_user="u", smtp_password="p")
    assert post_of(result) == SmtpPost("mail.example", 587, "starttls", "u", "p")
    assert isinstance(post_of(replace(result, demo=True)), FolderPost)  # the demo writes to nobody
    for bad in ({"smtp_security": "maybe"}, {"smtp_port": 0}):
        with pytest.raises(Exception, match="smtp_"):
            replace(plain, **bad)
