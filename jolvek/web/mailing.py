"""Where mail goes: to a server by SMTP where the settings name one, else to a folder."""

from __future__ import annotations

import smtplib
import ssl
from dataclasses import dataclass
from email import message_from_bytes
from email.policy import SMTP

from jolvek.standins.post import FolderPost, Post, Refused
from jolvek.web.settings import Settings

PATIENCE_S = 15.0


@dataclass(frozen=True)
class SmtpPost:
    """Hands mail to a server (RFC 5321); `security` is starttls, tls or none."""

    host: str
    port: int
    security: str
    user: str = ""
    password: str = ""

    def hand_on(self, number: int, recipient: str, mail: bytes) -> None:
        """One mail, known by its number and so by its Message-ID, should it come twice."""
        message = message_from_bytes(mail, policy=SMTP)
        sender = str(message["From"])
        if not message["Message-ID"]:
            message["Message-ID"] = f"<{number}@{sender.rpartition('@')[2]}>"
        with self._server() as server:
            if self.security == "starttls":
                server.starttls(context=ssl.create_default_context())
            if self.user:
                server.login(self.user, self.password)
            try:
                server.send_message(message, sender, [recipient])
            except (smtplib.SMTPRecipientsRefused, smtplib.SMTPDataError) as error:
                raise Refused(str(error)) from None

    def _server(self) -> smtplib.SMTP:
        if self.security == "tls":
            context = ssl.create_default_context()
            return smtplib.SMTP_SSL(self.host, self.port, timeout=PATIENCE_S, context=context)
        return smtplib.SMTP(self.host, self.port, timeout=PATIENCE_S)


def post_of(settings: Settings) -> Post:
    """What the settings say: a server, or the folder of the stand-in."""
    if settings.demo or not settings.smtp_host:
        return FolderPost(settings.data_dir / "outbox")
    s = settings
    return SmtpPost(s.smtp_host, s.smtp_port, s.smtp_security, s.smtp_user, s.smtp_password)
