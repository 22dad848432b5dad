"""jolvek-trial: a setup with the runs of its sea trial in, what they say of the boat out."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from typing import Any

from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.trial.causes import explain
from jolvek.core.trial.diagnosis import Suspected, suspect
from jolvek.core.trial.fitting import Fit, fit, untried
from jolvek.core.trial.runs import Run
from jolvek.formats import schema, setup_file
from jolvek.formats.setup_file import Question

FORMAT, VERSION = "jolvek-trial", 1


@dataclass(frozen=True)
class Trial:
    """A trial read from a file: what was tried and is asked, the runs, what was seen."""

    question: Question
    runs: tuple[Run, ...]
    seen: tuple[str, ...]
    tried_on: str


def read(text: str | bytes) -> Trial:
    """A trial from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check_schema(data, "trial")
    setup = {**data["setup"], **({"ask": data["ask"]} if "ask" in data else {})}
    schema.check_schema(setup, "setup")
    runs = tuple(Run(**x) for x in data["runs"])
    question = setup_file.from_dict(setup)
    return Trial(question, runs, tuple(data.get("seen", ())), data.get("tried_on", ""))


def answer(t: Trial) -> dict[str, Any]:
    """The fit, its band, each run beside it, what was asked before and after, and the diagnosis."""
    setup = t.question.setup
    f = fit(setup, t.runs, t.tried_on)
    tried, plain = replace(setup, hull=f.hull), replace(setup, hull=untried(setup.hull))
    before, after = (setup_file.answer(replace(t.question, setup=s)) for s in (plain, tried))
    return {
        "fit": {**f.factors, "sigma": _rounded(f.sigma), "tried_on": t.tried_on},
        "shape": [float(f"{x:.6g}") for x in f.hull.trial_shape],
        "spread": [float(f"{x:.6g}") for x in f.hull.trial_spread],
        "band": round(f.after, 5),
        "band_before": round(f.before, 5),
        "residuals": [
            {
                "power_w": x.run.power_w,
                "speed_m_s": x.run.speed_m_s,
                "heading": x.run.heading,
                "predicted_m_s": round(x.predicted_m_s, 5),
                "error": round(x.error, 5),
                "used": x.used,
                "why": x.why,
            }
            for x in f.run_fits
        ],
        "before": before["points"],
        "points": after["points"],
        "findings": [told(x) for x in suspected(setup, f, t.seen)],
    }


def suspected(setup: Setup, f: Fit, seen: tuple[str, ...] = ()) -> list[Suspected]:
    """The diagnosis from the points against the untried boat, and from what was seen."""
    promised = doubt(evaluate(replace(setup, hull=untried(setup.hull))))
    return suspect(explain(f.paired, promised, promised.performance.power_limit_w), seen)


def told(x: Suspected) -> dict[str, Any]:
    """A suspected fault as plain data."""
    keys = ("key", "seen", "told_by", "hazard")
    causes = [asdict(c) for c in x.fault.causes]
    out = {**{k: getattr(x.fault, k) for k in keys}, "why": x.why, "causes": causes}
    if x.explained is None:
        return out
    likely = [
        {"cause": y.cause.key, "chance": round(y.chance, 3), "what": y.cause.what}
        for y in x.explained.causes
    ]
    return {**out, "likely": likely, "next_power_w": round(x.explained.next_w)}


def _rounded(values: dict[str, float]) -> dict[str, float]:
    return {k: round(v, 4) for k, v in values.items()}
