"""The clock of a place: its legal time zone by a small table, summer time by the zone's own rules.

The table is rough, boxes of coasts and lakes where boats are sold; the sea beyond keeps the
nautical zone of its longitude. Borders are common practice, no source; the zones' rules are those
of the IANA data that Python reads.
"""

from __future__ import annotations

from datetime import datetime
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

# zone, latitudes from and to, longitudes from and to in degrees; the first that holds counts
_ZONES = """
Atlantic/Canary       27.0  30.0  -19.0  -13.0
Atlantic/Madeira      32.0  34.0  -18.0  -16.0
Atlantic/Azores       36.0  40.0  -32.0  -24.0
Atlantic/Reykjavik    63.0  67.0  -25.0  -13.0
Europe/Dublin         51.2  55.4  -11.0   -6.0
Europe/London         49.8  61.0   -8.7    1.9
Europe/Lisbon         36.8  41.9   -9.7   -7.4
Europe/Madrid         35.8  43.9   -9.5    4.5
Europe/Paris          42.3  51.1   -5.3    8.0
Europe/Tallinn        57.5  59.8   21.5   28.2
Europe/Riga           55.7  58.1   20.9   28.2
Europe/Vilnius        53.9  56.5   20.9   26.8
Europe/Helsinki       59.5  65.5   20.4   31.6
Europe/Helsinki       65.5  70.1   24.2   31.6
Europe/Berlin         39.6  46.2   18.5   20.3
Europe/Berlin         46.0  55.0    2.5   23.5
Europe/Athens         34.7  41.8   19.3   28.3
Europe/Bucharest      41.8  48.3   22.5   30.0
Europe/Istanbul       35.8  42.2   25.6   45.0
Europe/Berlin         35.4  71.5    2.5   24.2
America/St_Johns      46.5  52.0  -59.5  -52.5
America/Halifax       43.3  48.5  -67.0  -59.5
America/New_York      24.4  48.5  -85.0  -67.0
America/Chicago       25.8  49.4 -102.0  -85.0
America/Phoenix       31.3  37.0 -114.8 -109.0
America/Denver        31.3  49.0 -114.0 -102.0
America/Los_Angeles   32.5  49.0 -125.5 -114.0
America/Vancouver     48.3  55.0 -133.0 -120.0
America/Toronto       41.6  52.0  -90.0  -74.0
America/Winnipeg      49.0  55.0 -102.0  -90.0
Asia/Tokyo            24.0  46.0  123.0  146.0
Asia/Singapore         1.0   1.6  103.5  104.2
Australia/Perth      -36.0 -13.0  112.0  129.0
Australia/Darwin     -26.0 -10.0  129.0  138.0
Australia/Brisbane   -28.1 -10.0  138.0  154.0
Australia/Adelaide   -39.0 -26.0  129.0  141.0
Australia/Hobart     -44.0 -39.5  143.5  149.0
Australia/Sydney     -39.5 -28.1  141.0  154.0
Pacific/Auckland     -48.0 -34.0  166.0  179.0
Africa/Johannesburg  -35.5 -22.0   16.0   33.0
"""
_ROWS = [row.split() for row in _ZONES.strip().splitlines()]
_TABLE = [(row[0], [float(x) for x in row[1:]]) for row in _ROWS]


def zone_at(latitude_deg: float, longitude_deg: float) -> str | None:
    """The zone's name; None where the table has none.

    >>> zone_at(43.5, -3.8), zone_at(30.0, -40.0)
    ('Europe/Madrid', None)
    """
    for zone, (south, north, west, east) in _TABLE:
        if south <= latitude_deg <= north and west <= longitude_deg <= east:
            return zone
    return None


def offset_h(latitude_deg: float, longitude_deg: float, date: str) -> float:
    """Hours that clocks stand ahead of UTC at a place at noon of a date (ISO); by the longitude
    where no zone is known, or the date is none.

    >>> offset_h(43.5, -3.8, "2026-07-01"), offset_h(43.5, -3.8, "2026-01-01")
    (2.0, 1.0)
    >>> offset_h(30.0, -40.0, "2026-07-01")
    -3.0
    """
    by_longitude = float(round(longitude_deg / 15))
    zone = zone_at(latitude_deg, longitude_deg)
    if zone is None:
        return by_longitude
    try:
        noon = datetime.fromisoformat(date).replace(hour=12, tzinfo=ZoneInfo(zone))
    except (ValueError, ZoneInfoNotFoundError):
        return by_longitude
    ahead = noon.utcoffset()
    return by_longitude if ahead is None else ahead.total_seconds() / 3600
