"""NMEA 0183: checksums and figures against pynmea2, an independent reader; bad and half sentences;
an hour at 10 Hz.
"""

import random

import pynmea2
import pytest

from jolvek.core.base.units import KNOT_M_S
from jolvek.formats.nmea import BadSentence, Stream, checksum, parse, sentence


@pytest.mark.parametrize("knots", [0.0, 0.4, 5.25, 33.3])
@pytest.mark.parametrize("course", [0.0, 89.9, 359.9])
def test_speed_and_course_are_those_that_another_reader_finds(knots, course):
    rmc = sentence(f"GPRMC,093015.50,A,5301.2,N,00501.4,E,{knots},{course},261126,,,A")
    vtg = sentence(f"IIVTG,{course},T,,M,{knots},N,{knots * 1.852:.3f},K,A")
    for text in (rmc, vtg):
        other, ours = pynmea2.parse(text.strip(), check=True), parse(text)
        speed = getattr(other, "spd_over_grnd", None)
        speed = other.spd_over_grnd_kts if speed is None else speed
        assert ours.speed_m_s == pytest.approx(float(speed) * KNOT_M_S)
        assert ours.course_deg == pytest.approx(float(getattr(other, "true_course", course)))
    assert parse(rmc).time_s == 9 * 3600 + 30 * 60 + 15.5


def test_checksums_are_those_of_another_writer():
    made = pynmea2.RMC("GP", "RMC", ("120000", "A", "", "", "", "", "5.0", "90", "261126", "", ""))
    body = str(made)[1:].split("*")[0]
    assert str(made).endswith(checksum(body))


def test_volts_and_amps_and_our_own_sentence():
    bank = parse(sentence("IIXDR,U,25.6,V,BANK,I,31.25,A,BANK"))
    assert (bank.voltage_v, bank.current_a, bank.power_w) == (25.6, 31.25, 800.0)
    own = parse(sentence("PJLVB,25.6,31.25,,87"))
    assert own.power_w == 800.0 and own.charge == 0.87
    assert parse(sentence("PJLVB,,,640,")).power_w == 640
    assert parse(sentence("IIXDR,C,12.1,C,WATER")) is None
    assert parse(sentence("GPGGA,1,2,3")) is None
    assert parse(sentence("GPRMC,120000,V,,,,,,,261126,,")) is None  # no fix
    assert parse(sentence("IIVTG,,T,,M,,N,,K,N")) is None


BAD = [
    "",
    "hello",
    "$GPRMC,120000,A,,,,,5.0,90,261126,,*00",
    "$GPRMC,120000,A,,,,,5.0,90,261126,,",
    sentence("GPRMC,120000,A,,,,,fast,90,261126,,"),
    sentence("GPRMC,12"),
    sentence("PJLVB,nan,1,2,3").replace("nan", "1e9"),
    "$" + "A" * 300 + "*00",
]


@pytest.mark.parametrize("text", BAD)
def test_a_bad_sentence_is_refused(text):
    with pytest.raises(BadSentence):
        parse(text)


def test_a_stream_in_any_pieces_says_the_same_and_counts_what_is_bad():
    lines = [sentence(f"PJLVB,25.6,{i},,50") for i in range(200)]
    text = "".join(x if i % 10 else x[:-6] + "\r\n" for i, x in enumerate(lines)).encode()
    chance, stream, found = random.Random(1), Stream(), []
    while text:
        n = chance.randrange(1, 40)
        found += stream.feed(text[:n])
        text = text[n:]
    assert len(found) == 180 and stream.bad == 20
    assert stream.feed(b"\xff" * 5000) == [] and stream.bad == 21
    assert len(stream.feed(b"\r\n" + lines[1].encode())) == 1


def test_an_hour_at_ten_hertz_is_read_whole():
    stream, count = Stream(), 0
    for i in range(36_000):
        t = f"{i // 36000:02d}{i // 600 % 60:02d}{i / 10 % 60:04.1f}"
        count += len(stream.feed(sentence(f"IIRMC,{t},A,,,,,5.0,90,261126,,").encode()))
    assert (count, stream.bad, len(stream._rest)) == (36_000, 0, 0)
