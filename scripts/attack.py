"""Hostile requests over all addresses and roles, in process and bounded: no answer may be a fault,
show a trace, or take more than two seconds of the processor. `make attack`; N requests as argument.
"""

from __future__ import annotations

import logging
import random
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path
from typing import Any

from jolvek.demo import at_work
from jolvek.store.people import ROLES
from jolvek.web import create_app
from jolvek.web.demo_shop import shop
from jolvek.web.kit.accounts.limits import limiter
from tests.web.steps import Forms

MOST_CPU_S = 2.0
FIGURES = ["", "0", "-1", "-6", "1e308", "-1e308", "inf", "nan", "1e-308", "9" * 12, "2" * 400]
WRITTEN = "٣|１２|½|1,5|1.234.567|1 000|0x10|1e|--1|1/0|-0|5 ft 3 in|2026-02-30|9999-12-31|25:61"
EVIL = "' OR 1=1 --|<script>alert(1)</script>|=1+1|../../etc/passwd|{{7*7}}|%s%n|a\x00b"
EXTREMES = [*FIGURES, *WRITTEN.split("|"), *EVIL.split("|"), "a" * 5000]
SEGMENTS = "1|2|999|0|-1|x|%00|motors|csv|xlsx|..|a%2fb|é|board.json|🙂".split("|")
SEGMENTS += [str(2**63 - 1), str(2**63)]
STATIONS = "boat|waters|shortlist|side-by-side|day-out|fitting|offer|own|boats|by-hand".split("|")
HEAVIEST = ("side-by-side", "day-out", "fitting")
NAMES = """length beam mass people speed distance wind current title q letter motor series parallel
shaft kind id skip by at cursor view charge stream fetch tow months arrive v1 from price_min fold
col token supplier version person role back name password code family customer phone note currency
season_from tax_rates most units changed page override stage lead run load place_gear""".split()


class Attack:
    """The app, a client for each role and for nobody, and what was found."""

    def __init__(self, folder: Path, seed: int) -> None:
        self.app = create_app(shop(folder, more=at_work.add))
        self.app.config["WTF_CSRF_ENABLED"] = False
        self.random, self.codes, self.faults = random.Random(seed), Counter[int](), list[str]()
        self.slowest = (0.0, "")
        self.clients = {role: self.app.test_client() for role in ROLES}
        for role, client in self.clients.items():
            client.post("/play", data={"role": role})
        self.rules = [r for r in self.app.url_map.iter_rules() if r.endpoint != "static"]

    def ask(self, role: str, address: str, method: str = "GET", **more: Any) -> Any:
        """One request; what is wrong of its answer is kept."""
        limiter.reset()
        began = time.process_time()
        answer = self.clients[role].open(address, method=method, **more)
        took = time.process_time() - began
        self.codes[answer.status_code] += 1
        self.slowest = max(self.slowest, (took, f"{method} {address[:120]}"))
        text = answer.get_data(as_text=True) if answer.mimetype.startswith("text/") else ""
        for wrong, what in (
            (answer.status_code >= 500, str(answer.status_code)),
            ("Traceback (most" in text, "a trace"),
            (took > MOST_CPU_S, f"{took:.1f} s"),
        ):
            if wrong:
                self.faults.append(f"{what}: {role} {method} {address[:150]} {str(more)[:200]}")
        return answer

    def fuzz(self) -> None:
        """One request at random: any address, any role, hostile values everywhere."""
        rule, pick = self.random.choice(self.rules), self.random.choice
        address = rule.rule
        for name in rule.arguments:
            for kind in ("int:", "path:", ""):
                address = address.replace(f"<{kind}{name}>", pick(SEGMENTS))
        method = pick(sorted((rule.methods or {"GET"}) - {"OPTIONS", "HEAD"}))
        if rule.endpoint in ("account.leave", "account.leave_all", "backups.make", "account.play"):
            return
        values = {pick(NAMES): pick(EXTREMES) for _ in range(self.random.randrange(6))}
        heads = {"HX-Request": "true"} if self.random.random() < 0.3 else {}
        heads |= {"Authorization": pick(EXTREMES).replace("\x00", "")} if "api" in address else {}
        heads = {k: v.encode("latin-1", "ignore").decode("latin-1") for k, v in heads.items()}
        if method == "GET":
            self.ask(pick(ROLES), address, method, query_string=values, headers=heads)
        elif self.random.random() < 0.2:
            body = bytes(self.random.randrange(256) for _ in range(200))
            self.ask(pick(ROLES), address, method, data=body, headers=heads)
        else:
            self.ask(pick(ROLES), address, method, data=values, headers=heads)

    def extremes(self) -> int:
        """Every field of the forms of an enquiry at every extreme, one of the heaviest stations
        opened each time it was kept.
        """
        tried = 0
        for station in ("boat", "waters"):
            address = f"/enquiry/2/{station}"
            fields = Forms(self.ask("advisor", address).text).by_id["station-form"]["fields"]
            whole = {k: v for k, v in fields.items() if k not in ("csrf_token", "page", "changed")}
            for name in whole:
                for value in EXTREMES:
                    code = self.ask("advisor", address, "POST", data={**whole, name: value})
                    tried += 1
                    if code.status_code in (302, 303):
                        self.ask("advisor", f"/enquiry/2/{HEAVIEST[tried % len(HEAVIEST)]}")
                self.ask("advisor", address, "POST", data=whole)
        return tried

    def open_all(self) -> None:
        """Every station of the enquiry opens on what is kept."""
        for station in STATIONS:
            self.ask("advisor", f"/enquiry/2/{station}")


def main() -> int:
    """Attack, and say what came of it; 1 where something was found."""
    logging.disable(logging.CRITICAL)
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    with tempfile.TemporaryDirectory() as folder:
        attack = Attack(Path(folder), seed)
        for i in range(count):
            attack.fuzz()
            if i % 1000 == 999:
                print(f"{i + 1} of {count}, {len(attack.faults)} faults", flush=True)
        tried = attack.extremes()
        attack.open_all()
    print(f"{count} at random, {tried} extremes; answers {dict(sorted(attack.codes.items()))}")
    print(f"slowest {attack.slowest[0]:.2f} s of the processor: {attack.slowest[1]}")
    for fault in attack.faults[:30]:
        print("FAULT", fault)
    print(f"{len(attack.faults)} faults")
    return bool(attack.faults)


if __name__ == "__main__":
    sys.exit(main())
