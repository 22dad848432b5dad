"""The sea trial, of station 8: its plan, runs typed, from files and live, what they say of the
boat, and taking that over for every page, or going back.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.hydro.hull import Hull
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.core.trial.fitting import Fit, untried
from jolvek.core.trial.runs import HEADINGS, Run
from jolvek.core.trial.segments import runs_of, stretches
from jolvek.formats import log_file
from jolvek.standins.instrument import TcpInstrument
from jolvek.store import trials
from jolvek.store.trials import Trial
from jolvek.web import data, errors
from jolvek.web.kit import display, pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, PRICE_LIST, READER, RIGGER
from jolvek.web.kit.worked import Worked
from jolvek.web.saving import by, now
from jolvek.web.shared import Frame, conn, flash_left_out, form_id, frame, show, table_file
from jolvek.web.stations.trial import view as trial_page
from jolvek.web.stations.trial.form import HOW, HOW_WORDS, how_from, how_values
from jolvek.web.stations.trial.live import LIVES
from jolvek.web.stations.trial.sources import own_net, powers_of, samples

bp = Blueprint("trial", __name__, url_prefix="/enquiry/<int:enquiry_id>/trial")
pages.add(
    bp,
    {
        "page": READER,
        "copy": READER,
        "live_now": READER,
        "begin": RIGGER,
        "how": RIGGER,
        "run": RIGGER,
        "drop": RIGGER,
        "from_file": RIGGER,
        "live": RIGGER,
        "suspected": RIGGER,
        "use": ADVISOR,
    },
    limits={"from_file": PRICE_LIST},
)


def _hand(f: Frame) -> Worked:
    hand = f.card.in_hand
    if hand is None:
        abort(404)
    return hand


def _page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    f, u = frame(enquiry_id, "handover"), display.current()
    hand, trial = f.card.in_hand, trials.latest(conn(), enquiry_id)
    more: dict[str, Any] = {"hand": hand, "t": None, "refused": refused or {}}
    if hand is not None:
        kept = trials.runs(conn(), trial.id) if trial else []
        used = trials.energy_wh(conn(), trial.id) if trial else None
        more |= {
            "t": trial_page.page(trial, kept, hand, u, used),
            "trial": trial,
            "how": HOW,
            "how_values": how_values(trial.data if trial else {}),
            "kinds": FAULTS,
            "headings": HEADINGS,
            "units": tuple(log_file.SPEED_UNITS),
            "live": LIVES.get(trial.id) if trial else None,
            "typed": request.form if refused else {},
        }
    return show("stations/trial/page.html", f, **more), code


@bp.get("")
def page(enquiry_id: int) -> Any:
    """Plan, runs, and what they say."""
    return _page(enquiry_id)


def _trial(f: Frame) -> Trial:
    """The last trial, begun where there is none."""
    return shop.trials.current(conn(), by(), f.e.id, _hand(f).letter, f.need.hull.family)


def _back(enquiry_id: int) -> Any:
    return redirect(url_for("trial.page", enquiry_id=enquiry_id), 303)


@bp.post("/begin")
def begin(enquiry_id: int) -> Any:
    """A new trial, after something was changed; the runs of the one before stay with it."""
    f = frame(enquiry_id, "handover")
    shop.trials.begin(conn(), by(), enquiry_id, _hand(f).letter, f.need.hull.family)
    return _back(enquiry_id)


@bp.post("/how")
def how(enquiry_id: int) -> Any:
    """Keep how she was, and what was seen; faults are recorded."""
    _trial(frame(enquiry_id, "handover"))
    refused: dict[str, str] = {}

    def edited(stands: Mapping[str, Any]) -> Mapping[str, Any]:
        form = merged(request.form, how_values(stands), HOW_WORDS)
        return how_from(form, Reader(form, display.current(), refused))

    shop.trials.set_up(conn(), enquiry_id, edited)
    if refused:
        return _page(enquiry_id, refused, 422)
    return _back(enquiry_id)


@bp.post("/run")
def run(enquiry_id: int) -> Any:
    """Keep a typed run."""
    f, read = frame(enquiry_id, "handover"), Reader(request.form, display.current())
    power = read.figure("power", "power", 1, 200_000)
    speed = read.figure("speed", "speed", 0.05, 30)
    rpm = read.figure("rpm", "count", *Run.RANGES["rpm"])
    volts = read.figure("volts", "voltage", *Run.RANGES["volts_v"])
    heading = read.one_of("heading", HEADINGS, "")
    for key, value in (("power", power), ("speed", speed)):
        if value is None and key not in read.refused:
            read.refused[key] = "needed"
    if read.refused or power is None or speed is None:
        return _page(enquiry_id, read.refused, 422)
    trial = _trial(f)
    about: dict[str, Any] = {k: trial.data.get(k) for k in ("wind_m_s", "depth_m")}
    about |= {"rpm": rpm, "volts_v": volts}
    record = Run(power, speed, heading, now(), request.form.get("note", "").strip()[:300], **about)
    shop.trials.add_runs(conn(), trial.id, (record,), "typed", request.form.get("op", ""))
    return _back(enquiry_id)


@bp.post("/drop")
def drop(enquiry_id: int) -> Any:
    """Take a run away."""
    trial = _trial(frame(enquiry_id, "handover"))
    shop.trials.drop_run(conn(), trial.id, form_id("run"))
    return _back(enquiry_id)


@bp.post("/file")
def from_file(enquiry_id: int) -> Any:
    """Steady stretches of a log (CSV) or a track (GPX with the power typed) as runs."""
    f, upload, form = frame(enquiry_id, "handover"), request.files.get("file"), request.form
    if upload is None or not upload.filename:
        return _page(enquiry_id, {"file": tr("choose a CSV or GPX file first")}, 422)
    try:
        powers = powers_of(form.get("file_power", ""))
        gpx = upload.filename.lower().endswith(".gpx")
        read_in = samples(upload.read(), gpx, form)
        runs = runs_of(stretches(read_in), powers)
    except JolvekError as error:
        return _page(enquiry_id, {"file": f"{upload.filename}: {error}"}, 422)
    if not runs:
        why = (
            tr("no stretch in it is steady for 20 s") if powers or not gpx else tr("type its power")
        )
        return _page(enquiry_id, {"file": f"{upload.filename}: {why}"}, 422)
    trial = _trial(f)
    shop.trials.add_runs(conn(), trial.id, runs, "file")
    flash_left_out(read_in.left_out)
    count = display.counted(len(runs), "run")
    flash(tr("%(runs)s read from %(filename)s.", runs=count, filename=upload.filename))
    return _back(enquiry_id)


errors.refuses_large("trial.from_file", lambda text: (text, 413))


@bp.post("/use")
def use(enquiry_id: int) -> Any:
    """Every page goes by the tried boat from now on; or goes back to the untried one."""
    f = frame(enquiry_id, "handover")
    hand, trial = _hand(f), _trial(f)
    found: Fit | None = None
    if not request.form.get("undo"):
        kept = trials.runs(conn(), trial.id)
        found = trial_page.page(trial, kept, hand, display.current()).fit
        if found is None:
            return _page(enquiry_id, {"use": tr("No run belongs yet: nothing is known.")}, 422)

    def hull_of(hull: Hull) -> Hull:
        return _on(hull, found) if found else untried(hull)

    factors = {**found.factors, "sigma": found.sigma} if found else None
    shop.trials.go_by(conn(), by(), trial, hull_of, factors)
    signing.record_activity("trial taken over" if found else "trial taken back", str(enquiry_id))
    flash(
        tr("Every page goes by the tried boat.")
        if found
        else tr("The boat counts as untried again.")
    )
    return _back(enquiry_id)


def _on(hull: Hull, found: Fit) -> Hull:
    form = {k: getattr(found.hull, k) for k in ("trial_shape", "trial_spread")}
    more: dict[str, Any] = {**found.factors, **form}
    return replace(hull, **more, tried_on=date.today().isoformat())


@bp.post("/suspected")
def suspected(enquiry_id: int) -> Any:
    """Record a suspected fault, so that it must be closed or accepted."""
    kind = request.form.get("kind", "")
    if kind not in FAULTS:
        abort(404)
    try:
        shop.handovers.add_fault(conn(), by(), enquiry_id, kind, request.form.get("why", ""))
    except JolvekError as error:
        return _page(enquiry_id, {"use": str(error)}, 422)
    return redirect(url_for("handover.page", enquiry_id=enquiry_id) + "#faults", 303)


@bp.get("/runs.<form>")
def copy(enquiry_id: int, form: str) -> Any:
    """The runs as a table."""
    f, u = frame(enquiry_id, "handover"), display.current()
    trial = trials.latest(conn(), enquiry_id)
    if trial is None:
        abort(404)
    t = trial_page.page(trial, trials.runs(conn(), trial.id), _hand(f), u)
    head = (
        "power",
        "heading",
        tr("speed, %(x)s", x=u["speed"]),
        "promised",
        "between",
        tr("rev/min, volts"),
        tr("left out because"),
    )
    rows = ((*r.cells, r.also, r.why) for r in t.rows)
    return table_file([head, *rows], f"trial-{enquiry_id}", form)


@bp.post("/live")
def live(enquiry_id: int) -> Any:
    """Listen to an instrument, or stop."""
    f, form = frame(enquiry_id, "handover"), request.form
    trial = _trial(f)
    if form.get("stop"):
        LIVES.stop(trial.id)
        return _back(enquiry_id)
    host, _, port = form.get("address", "").strip().rpartition(":")
    try:
        s = data.settings()
        near = own_net(host, port, s.demo or s.instruments == "machine")
    except JolvekError as error:
        return _page(enquiry_id, {"address": str(error)}, 422)
    known = [k.run for k in trials.runs(conn(), trial.id)]
    instrument = TcpInstrument(near, int(port))
    after = max((s.t_s for s in trials.samples(conn(), trial.id)), default=0.0) + 60.0
    LIVES.start(trial.id, instrument, f"{host}:{port}", data.settings().database, known, after)
    return _back(enquiry_id)


@bp.get("/live")
def live_now(enquiry_id: int) -> Any:
    """What the instrument says now, for a page that asks every second."""
    f, u = frame(enquiry_id, "handover"), display.current()
    hand, trial = _hand(f), trials.latest(conn(), enquiry_id)
    if trial is None:
        abort(404)
    t = trial_page.page(trial, trials.runs(conn(), trial.id), hand, u)
    return show("stations/trial/_live_now.html", e=f.e, live=LIVES.get(trial.id), t=t)
