"""Templates are written in plain English; their running text becomes messages while they compile.

A run is what stands between two block tags: words, `{{ figures }}` and inline tags, so a whole
sentence stays one message. `Reaches <b>{{ top }}</b> at best.` is the message
`Reaches <b>%(top)s</b> at best.`; a tag with attributes stands in it as its name and a star. What
attributes say to the eye or the ear (READ), and literals that are words, are messages too.
"""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator
from typing import NamedTuple

from jinja2.ext import Extension

INLINE = frozenset("a b strong em i small kbd code abbr sup sub br".split())
READ = frozenset("aria-label title placeholder alt".split())
JINJA = re.compile(r"\{#.*?#\}|\{%.*?%\}|\{\{.*?\}\}", re.S)
PIECE = re.compile(r"(<!--.*?-->|<[^>]+>|\x00\d+\x01)", re.S)
HELD = re.compile(r"(\x00\d+\x01)")
WORDS = re.compile(r"[^\W\d_]{2}")
MARKUP = re.compile(r'\s*[\w-]+="')  # attributes that a macro writes
ATTRIBUTE = re.compile(r'(?<=\s)([a-z-]+)="([^"]*)"')
NAMES_FILES = re.compile(r"\{%-?\s*(extends|include|from|import|block|macro)\b")
LITERAL = re.compile(r"""(["'])((?:(?!\1)[^\\])*)\1""", re.S)
# a message already, or only compared
OTHER_USE = re.compile(r"""(?:\b_\(|\bn_\((?:"[^"]*",)?|[=!]=)\s*$""")
HUMAN = re.compile(
    r"^(?!is-|button|data-|.*[/=_{])(?:\W?[A-Z][a-zé]|.*[a-z]{2,},? [a-z(%]|.*, %)", re.S
)
GRAMMAR = frozenset("if else not and or in is none true false".split())


class Part(NamedTuple):
    """A piece of a run: words, a figure, an inline tag that opens or closes, or a `<br>`."""

    kind: str
    source: str


def compiled(source: str) -> str:
    """A template's source with its running text as messages.

    >>> compiled("<p>Reaches <b>{{ top }}</b> at best.</p>")
    '<p>{{ _run("Reaches <b>%(top)s</b> at best.", [], top=(top)) }}</p>'
    """
    held: list[str] = []

    def hold(m: re.Match[str]) -> str:
        held.append(_spoken(m[0]))
        return f"\x00{len(held) - 1}\x01"

    def back(text: str) -> str:
        return HELD.sub(lambda m: held[int(m[0][1:-1])], text)

    return "".join(_pieces(PIECE.split(JINJA.sub(hold, source)), back))


def _spoken(code: str) -> str:
    """An expression or statement whose literals are messages, where they are words.

    >>> _spoken("{{ post(url_for('order.keep'), 'Hold it', kind='is-small') }}")
    "{{ post(url_for('order.keep'), _('Hold it'), kind='is-small') }}"
    """
    if code.startswith("{#") or NAMES_FILES.match(code):
        return code

    def told(m: re.Match[str]) -> str:
        before, after = code[: m.start()], code[m.end() :].lstrip()
        flat = re.sub(r"\s+", " ", m[0]) if m[2].strip() else m[0]
        if not HUMAN.search(m[2]) or OTHER_USE.search(before) or after.startswith(":"):
            return flat
        return f"_({flat})"

    return LITERAL.sub(told, code)


def _pieces(pieces: list[str], back: Callable[[str], str]) -> Iterator[str]:
    run: list[Part] = []
    verbatim = False
    for flat in filter(None, pieces):
        whole = _tag(flat, back) if flat.startswith("<") else back(flat)
        kind = "" if verbatim else _kind(flat, whole)
        if flat.startswith(("<style", "<script", "</style", "</script")):
            verbatim = flat[1] != "/"
        if kind:
            run.append(Part(kind, whole))
        else:
            yield written(run)
            yield whole
            run = []
    yield written(run)


def _kind(flat: str, whole: str) -> str:
    if flat.startswith("\x00"):
        return "figure" if whole.startswith("{{") else ""
    if not flat.startswith("<"):
        return "words"
    name = re.match(r"</?([\w-]+)", flat)
    if not name or name[1] not in INLINE:
        return ""
    return "break" if name[1] == "br" else "close" if flat.startswith("</") else "open"


def _tag(flat: str, back: Callable[[str], str]) -> str:
    """A tag with the words of its attributes as messages."""

    def told(m: re.Match[str]) -> str:
        if m[1] not in READ:
            return m[0]
        parts = [Part(_kind(x, back(x)), back(x)) for x in HELD.split(m[2]) if x]
        return f'{m[1]}="{written(parts)}"' if all(p.kind for p in parts) else m[0]

    return back(ATTRIBUTE.sub(told, flat))


def written(run: list[Part]) -> str:
    """A run as source of the compiled template; elements side by side are messages each."""
    whole = "".join(p.source for p in run)
    if not any(p.kind == "words" and WORDS.search(p.source) for p in run) or MARKUP.match(whole):
        return whole
    return _side_by_side(run) or _message(run, whole)


def _side_by_side(run: list[Part]) -> str:
    out: list[str] = []
    inner: list[Part] = []
    depth = 0
    for p in run:
        depth -= p.kind == "close"
        if depth < 0:  # of an element that began before this run
            out.append(p.source)
            depth = 0
            continue
        if depth:
            inner.append(p)
        elif p.kind in ("words", "figure") and p.source.strip():
            return ""
        else:
            out += [written(inner), p.source]
            inner = []
        depth += p.kind == "open"
    return "".join((*out, written(inner)))


def _message(run: list[Part], whole: str) -> str:
    tags: list[str] = []
    values: dict[str, str] = {}
    text = ""
    for p in run:
        if p.kind == "figure":
            body = p.source[2:-2].strip("-+ \n")
            name = _named(body)
            while values.get(name, body) != body:
                name += "_"
            values[name] = body
            text += f"%({name})s"
        elif p.kind == "open" and re.search(r"\s", p.source.strip()):
            text += re.match(r"<\w+", p.source)[0] + " *>"  # type: ignore[index]
            tags.append(p.source)
        else:
            text += p.source.replace("%", "%%")
    message = json.dumps(re.sub(r"\s+", " ", text).strip(), ensure_ascii=False)
    sets = "".join(f"{{% set _tag{i} %}}{t}{{% endset %}}" for i, t in enumerate(tags))
    names = ", ".join(f"_tag{i}" for i in range(len(tags)))
    places = "".join(f", {k}=({v})" for k, v in values.items())
    before = whole[: len(whole) - len(whole.lstrip())]
    after = whole[len(whole.rstrip()) :]
    return f"{before}{sets}{{{{ _run({message}, [{names}]{places}) }}}}{after}"


def _named(expression: str) -> str:
    """What a place in the message is called: the last name that the expression reads.

    >>> _named("u.full(need.load.gear_kg, 'mass')"), _named("o.number or 'none'")
    ('gear_kg', 'number')
    """
    bare = re.sub(r"\"[^\"]*\"|'[^']*'", "", expression.split("|")[0])
    names = re.findall(r"(?<![\w.])([a-zA-Z_][\w.]*)(?![\w.]|\s*\()", bare)
    read = [x for x in names if x not in GRAMMAR]
    return (read[0] if read else "figure").rsplit(".", 1)[-1].lower()


class RunningText(Extension):
    """Jinja compiles every page so."""

    def preprocess(self, source: str, name: str | None, filename: str | None = None) -> str:
        """The source of a page with messages for its text."""
        return compiled(source) if name is None or name.endswith(".html") else source
