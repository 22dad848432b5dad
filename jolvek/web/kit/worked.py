"""One pinned setup of a job, with its figures in words; no HTML here."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from jolvek.core.electric.bank import layout
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.job_setup import JobSetup, job_setup
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.products.rates import Rates
from jolvek.core.rules.findings import Finding
from jolvek.store.setups import Pinned
from jolvek.web.kit import language
from jolvek.web.kit.language import tr
from jolvek.web.kit.rates import shop_rates


@dataclass(frozen=True)
class Worked:
    """One pinned setup and what the job makes of it."""

    pinned: Pinned
    job: JobSetup

    @property
    def letter(self) -> str:
        """Its letter."""
        return self.pinned.letter

    @property
    def fitted(self) -> Fitted:
        """It on its boat."""
        return self.job.fitted

    @property
    def performance(self) -> Performance:
        """Its figures."""
        return self.job.performance

    @property
    def wish_or_top(self) -> Point:
        """At the wanted speed, or at the top speed where that is less."""
        return self.job.wish_or_top

    @property
    def wish_or_top_m_s(self) -> float:
        """The wanted speed, or the top speed where that is less."""
        return self.job.wish_or_top_m_s

    @property
    def findings(self) -> list[Finding]:
        """Everything that is found of it, worst first."""
        return self.job.findings

    @property
    def charge_h(self) -> float | None:
        """Hours from the reserve to full."""
        return self.fitted.charge_h

    @property
    def bank_text(self) -> str:
        """The bank in words."""
        return str(language.shown(layout(self.fitted.bank)))

    @property
    def level(self) -> str:
        """Worst level of its findings."""
        return self.job.level

    @property
    def lift_kg(self) -> float:
        """Heaviest single lift."""
        return self.fitted.lift_kg

    @property
    def parts_kg(self) -> float:
        """Motor, mount and bank."""
        return self.job.mass_kg

    @property
    def kept_short(self) -> str:
        """The same as it stands in a table."""
        share = f"{100 * self.fitted.kept:.0f} %"
        if not self.fitted.need.day.keep_s:
            return share
        hour = tr("an hour's running")
        return f"{hour}, {share}" if self.fitted.kept else hour

    @property
    def kept_text(self) -> str:
        """What stays when the boat stops: of the charge (half for lead, whatever was asked), or
        time.
        """
        share = tr("%(kept)s %% of the charge", kept=f"{100 * self.fitted.kept:.0f}")
        if not self.fitted.need.day.keep_s:
            return share
        return (
            tr("an hour's running and %(share)s", share=share)
            if self.fitted.kept
            else tr("an hour's running")
        )

    @property
    def blocked(self) -> bool:
        """Whether it cannot be offered."""
        return self.job.blocked

    def aged(self, ageing: float) -> Worked:
        """The same with an older battery."""
        return replace(self, job=replace(self.job, fitted=replace(self.fitted, ageing=ageing)))


def work_out(need: Need, pinned: Pinned) -> Worked:
    """One pinned setup on one boat, at the shop's rates; remembered by what it is made of."""
    return Worked(pinned, _job(need, pinned, shop_rates()))


@lru_cache(maxsize=128)
def _job(need: Need, p: Pinned, rates: Rates) -> JobSetup:
    layout_ = (p.series, p.parallel)
    return job_setup(need, p.letter, p.parts, p.extras, layout_, p.shaft_m, p.fitting, rates)
