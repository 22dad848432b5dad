"""What templates may call: drawings, the user's units, and filters for figures and words."""

from __future__ import annotations

from contextlib import suppress
from datetime import date
from hashlib import sha256
from pathlib import Path
from typing import Any

from babel import localedata
from flask import Flask, g, request
from jinja2 import FileSystemBytecodeCache
from jinja2.bccache import Bucket

from jolvek.core.base.messages import msg
from jolvek.core.base.units import hours
from jolvek.core.care.faults import FAULT_STATE_WORDS
from jolvek.core.fit.handover import piece_name
from jolvek.core.rules.signals import SIGNAL_WORDS
from jolvek.web import data, errors, shared
from jolvek.web.desk.history import named
from jolvek.web.kit import dates, display, figures, language, pdf, rates, template_messages, words
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.drawings import part_pictures, pictures, signature
from jolvek.web.kit.drawings.boat_drawing import silhouette
from jolvek.web.kit.drawings.charts import badge
from jolvek.web.kit.fields import keyboards
from jolvek.web.settings import Settings

SCRIPTS = (
    "vendor/htmx/htmx.min.js",
    "vendor/htmx/hx-alpine-compat.min.js",
    "app/words.js",
    "app/figures.js",
    "app/compare.js",
    "app/dragging.js",
    "app/swaps.js",
    "app/signing.js",
    "app/saving.js",
    "app/typed.js",
    "app/store.js",
    "app/outbox.js",
    "app/scrolling.js",
    "app/steps.js",
    "app/sign.js",
    "app/afar.js",
    "app/tabs.js",
    "app/offline.js",
    "app/quick.js",
    "app/lean.js",
    "app/keys.js",
    "vendor/alpine/alpine-csp.min.js",
)

MAIN_PAGES = (
    ("counter", msg("Counter")),
    ("catalogue", msg("Catalogue")),
    ("care_list", msg("In service")),
    ("rules", msg("Rules")),
)
SHOP_PAGES = (
    ("shop.page", msg("Settings")),
    ("people.page", msg("People")),
    ("backups.page", msg("Backups")),
    ("exchange.page", msg("Import and export")),
    ("families.page", msg("Learned on the water")),
    ("keys.page", msg("Keys for your own site")),
    ("trail.page", msg("Activity log")),
)


def _typed(field: Any) -> str:
    """What stands in a text field: what was typed where it was refused, else what is kept."""
    return str((field.raw_data[0] if field.errors and field.raw_data else field.data) or "")


def set_up(app: Flask, settings: Settings) -> None:
    """Hand the templates their functions and filters."""
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.jinja_env.add_extension(template_messages.RunningText)
    if app.jinja_env.bytecode_cache is None:  # compiled once, not at each start
        app.jinja_env.bytecode_cache = _compiled(settings.data_dir)
    app.jinja_env.finalize = language.shown
    app.jinja_env.globals.update(
        silhouette=silhouette,
        badge=badge,
        money=display.money,
        price_name=rates.price_name,
        fig=figures.fig,
        field_name=named.field_name,
        field_text=named.field_text,
        minor_money=display.minor_money,
        minor_plain=display.minor_plain,
        counted=display.counted,
        _=language.tr,
        n_=language.counted_text,
        _run=language.run,
        language=language.current,
        languages=language.LANGUAGES,
        screens=language.SCREENS,
        script_words=language.of_scripts,
        **{"signature": signature.drawn, "static_text": pdf.static_text, "main_pages": MAIN_PAGES},
        is_demo=settings.demo,
        choices=display.CHOICES,
        scripts=SCRIPTS,
        again=shared.again,
        side_view_of=pictures.card_view,
        part_picture=part_pictures.part_picture,
    )
    _filters(app)
    figures.set_up(app)
    app.context_processor(_shared)
    localedata.load(display.DATES["en"])  # 50 ms, once in a process: not at its first page


def _compiled(data_dir: Path) -> FileSystemBytecodeCache:
    """Templates as they were compiled by this way of compiling, in the shop's own folder."""
    folder = data_dir / "templates"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    way = sha256(Path(template_messages.__file__).read_bytes()).hexdigest()[:12]
    return Compiled(str(folder), f"{way}-%s.cache")


class Compiled(FileSystemBytecodeCache):
    """Templates as compiled; where the disk takes nothing, they are compiled again."""

    def dump_bytecode(self, bucket: Bucket) -> None:
        """Keep a template, if that can be done."""
        with suppress(OSError):
            super().dump_bytecode(bucket)


def _filters(app: Flask) -> None:
    app.jinja_env.filters.update(
        field_name=named.field_name,
        hours=hours,
        long_hours=display.long_hours,
        clock=dates.clock,
        day=dates.day,
        clock_time=dates.clock_time,
        saved_at=dates.saved_at,
        date_time=dates.date_time,
        band=display.band,
        strong=display.strong,
        decimal=lambda figure: language.decimal(str(figure)),
        join=language.joined,
        piece_name=piece_name,
        fault_state=lambda state: language.shown(FAULT_STATE_WORDS[state]),
        capitalize=lambda text: language.capital(str(language.shown(text))),
        signal_word=lambda signal: language.tr(SIGNAL_WORDS[signal]),
        key_words=words.key_words,
        key_unit=words.key_unit,
        field_change=words.field_change,
        plain_value=words.plain_value,
        typed=_typed,
        keyboard=keyboards.keyboard,
        keyboard_of=keyboards.keyboard_of,
    )


def _shared() -> dict[str, Any]:
    shop_pages = [p for p in SHOP_PAGES if signing.may(p[0])]
    return {
        "u": display.current(),
        "today": date.today().isoformat(),
        "shop": data.shop(),
        "dealer": data.shop().name,
        "theme": request.cookies.get("theme", ""),
        "person": signing.person(),
        "cannot_write": errors.why_not_written(g.get("cannot_write", "")),
        "may": signing.may,
        "shop_pages": shop_pages,
    }
