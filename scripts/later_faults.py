"""Faults to be planted in what came after 0.6's first half: fitting, models, suppliers, jobs, hire.
Name, file, what stands there, what it becomes.
"""

WEB, STORE = "jolvek/web/", "jolvek/store/"
CORE = "jolvek/core/"
LATER_FAULTS = (
    (
        "a fin's foot of any width",
        CORE + "rules/predicates.py",
        "> FOOT_SLACK_MM\n",
        "> 99 * FOOT_SLACK_MM\n",
    ),
    (
        "a fixed rudder that swings up",
        CORE + "fit/fit_facts.py",
        "if need.site.rudder_lifts else chord",
        "if need.site.rudder_chord_m else chord",
    ),
    (
        "a throttle's cable without slack",
        CORE + "fit/controls.py",
        "+ UP_M + SLACK_M",
        "+ UP_M",
    ),
    (
        "a locked motor that steers",
        CORE + "fit/controls.py",
        "f.mount.spec.fixed or f.fitting.locked",
        "f.mount.spec.fixed",
    ),
    (
        "an extension lead that leads nowhere",
        CORE + "fit/fitted.py",
        "self.motor.pack_ids and self.fitting.lead_m is None",
        "self.motor.pack_ids",
    ),
    (
        "the chosen bay forgotten",
        CORE + "fit/stowage.py",
        "return chosen or f.need.site.bays",
        "return f.need.site.bays",
    ),
    (
        "panels beyond the canopy",
        CORE + "fit/add_ons.py",
        "wants <= canopy + 1e-9",
        "wants <= 9 * canopy",
    ),
    (
        "a model's row whatever her year",
        CORE + "products/boat_model.py",
        "fits = [m for m in rows if m.covers(year)]",
        "fits = list(rows)",
    ),
    (
        "a season of one run a day",
        CORE + "day/season.py",
        "runs = day.runs_per_day * day.days_a_season",
        "runs = day.days_a_season",
    ),
    (
        "a foreign price taken as ours",
        "jolvek/formats/supplier_columns.py",
        "{price * column.rate:.2f}",
        "{price:.2f}",
    ),
    (
        "a supplier's unit dropped",
        "jolvek/formats/supplier_columns.py",
        'return f"{text} {column.unit}"',
        "return text",
    ),
    (
        "full marks for 4 of 12 knots",
        CORE + "match/ranking.py",
        "most = max(float(x[base].max()), asked, 1e-9)",
        "most = max(float(x[base].max()), 1e-9)",
    ),
    (
        "waiting out there costs nothing",
        CORE + "enquiry/need.py",
        "                self.standby_s,\n",
        "                0.0,\n",
    ),
    (
        "a job that ends with its first boat",
        "jolvek/store/jobs.py",
        "iif(id = :first, NULL, :first)",
        "iif(id = :first, NULL, NULL)",
    ),
    (
        "one's own plug fits any motor",
        CORE + "fit/controls.py",
        "return f.battery.own and not f.motor.own",
        "return f.battery.own and f.motor.own",
    ),
    (
        "a hire boat that always sets out full",
        CORE + "day/summed.py",
        "    if day.runs_a_charge == 1:\n",
        "    if day.runs_a_charge:\n",
    ),
    (
        "the list forgets the runs of a charge",
        CORE + "match/candidate_days.py",
        "day.runs_a_charge * runs.day_wh",
        "runs.day_wh",
    ),
    (
        "ranges from a full bank",
        CORE + "fit/fitted.py",
        "start_charge=day.start_charge",
        "start_charge=1.0",
    ),
    (
        "every role may do everything",
        WEB + "accounts/access.py",
        "role in ROLES and ROLES.index(role) >= ROLES.index(least)",
        "role in ROLES",
    ),
    (
        "a session that never idles out",
        STORE + "people.py",
        "timedelta(hours=12)",
        "timedelta(9e4)",
    ),
    ("a one-time code good twice", STORE + "people.py", " AND factor_step < :step", ""),
    ("a backup read without its hashes", STORE + "backups.py", "!= digest", "== ''"),
    (
        "an offer sent with open cautions",
        WEB + "stations/offer.py",
        "    if unread:\n",
        "    if unread and not unread:\n",
    ),
    (
        "tax taken from the wrong side",
        CORE + "deal/lines.py",
        "rounded(left * rate / (HUNDRED + rate))",
        "rounded(left * rate / HUNDRED)",
    ),
    (
        "a link good for ever",
        STORE + "offers.py",
        'or row["until"] < now.isoformat()',
        'or row["until"] < ""',
    ),
    (
        "files of the machine on a paper",
        WEB + "view/pdf.py",
        "and not inside:",
        "and not parts:",
    ),
    (
        "a battery that only ages by years",
        CORE + "deal/cost.py",
        "return min(by_cycles, self.calendar_life_years)",
        "return self.calendar_life_years",
    ),
)
