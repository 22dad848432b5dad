"""The rule book is searched by words, level and topic; what finds nothing says so."""

import re

from jolvek.core.rules.rulebook import RULES


def shown(client, query=""):
    page = client.get(f"/rules{query}").text
    return re.findall(r'<tr id="([\w-]+)"', page), page


def test_rules_are_found_by_words_level_and_topic(client):
    every, page = shown(client)
    assert sorted(every) == sorted(RULES) and f"{len(RULES)} of {len(RULES)} rules" in page
    fuses, _ = shown(client, "?q=fuse+32+V")
    assert "main-fuse" in fuses and "awash" not in fuses and len(fuses) < len(RULES) / 4
    danger, _ = shown(client, "?signal=danger&topic=day")
    assert danger and all(RULES[x].topic == "day" for x in danger)
    none, page = shown(client, "?q=zebra")
    assert none == [] and "No rule contains these words" in page
    odd, _ = shown(client, "?signal=loud&topic=x")  # what is no level or topic asks for all
    assert len(odd) == len(RULES)


def test_a_search_is_in_the_readers_language(client):
    client.post("/units", data={"language": "de"})
    found, _ = shown(client, "?q=schwimmweste")
    rettung, _ = shown(client, "?q=rettungswesten")
    assert "life-jacket" in (*found, *rettung)
