"""CSRF, the Content-Security-Policy, escaping, and no trace on an error."""

import pytest

SECRET = 'secret_key = "a secret of thirty-two characters"\n'


def test_what_is_typed_is_escaped(client):
    evil = '"><script>alert(1)</script>'
    text = client.get(
        "/",
        query_string={"family": evil, "length": evil, "people": "2", "speed": "3", "distance": "5"},
    ).text
    assert "<script>alert" not in text and "&lt;script&gt;" in text


def test_templates_hold_no_inline_style_or_handler(client):
    for path in (
        "/",
        "/enquiry/2/boat",
        "/enquiry/2/shortlist",
        "/enquiry/5/side-by-side",
        "/rules",
    ):
        text = client.get(path).text
        assert " style=" not in text and " onclick=" not in text and "hx-on" not in text


def test_an_unexpected_error_shows_no_trace(app, monkeypatch):
    from jolvek.web.desk.rules import page as rules

    monkeypatch.setattr(rules, "show", lambda *a, **k: 1 / 0)
    app.config["TESTING"] = False
    answer = app.test_client().get("/rules")
    assert answer.status_code == 500 and "Traceback" not in answer.text and "logged" in answer.text


def test_unknown_settings_and_a_missing_secret_stop_the_start(monkeypatch, tmp_path):
    from jolvek.core.base.errors import JolvekError
    from jolvek.web.settings import from_environment

    with pytest.raises(JolvekError, match="JOLVEK_SECRET_KEY"):
        from_environment(tmp_path)
    monkeypatch.setenv("JOLVEK_SECRET_KEY", "x" * 32)
    monkeypatch.setenv("JOLVEK_COLOUR", "red")
    with pytest.raises(JolvekError, match="JOLVEK_COLOUR"):
        from_environment(tmp_path)


def test_a_file_in_the_data_folder_sets_and_a_variable_wins(monkeypatch, tmp_path):
    from jolvek.core.base.errors import JolvekError
    from jolvek.web.settings import from_environment

    path = tmp_path / "jolvek.toml"
    path.write_text(SECRET + 'hosts = "a.example, b.example"\nproxies = 2\n')
    read = from_environment(tmp_path)
    assert (read.host_list, read.proxies) == (["a.example", "b.example"], 2)
    monkeypatch.setenv("JOLVEK_PROXIES", "1")
    assert from_environment(tmp_path).proxies == 1
    for text, result in (
        (SECRET + 'colour = "red"', "colour"),
        (SECRET + "hosts = 3", "a text, in quotes"),
        (
            SECRET + "max_form_bytes = true",
            "a whole number",
        ),
        (SECRET + "max_form_bytes = 1", "10000 to"),
        ("secret_key =", "cannot be read"),
    ):
        path.write_text(text)
        with pytest.raises(JolvekError, match=result):
            from_environment(tmp_path)
