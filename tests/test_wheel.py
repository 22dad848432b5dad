"""The wheel, the container file and the unit file: what they hold, and that the app runs outside
its sources.
"""

import configparser
import re
import subprocess
import sys
import urllib.request
from pathlib import Path
from shutil import copyfile, copytree, ignore_patterns

import pytest

TOP = Path(__file__).parents[1]


@pytest.fixture(scope="session")
def installed(tmp_path_factory):
    """The package as pip installs it from a wheel, in a folder of its own."""
    folder = tmp_path_factory.mktemp("wheel")
    sources = folder / "sources"
    copytree(TOP / "jolvek", sources / "jolvek", ignore=ignore_patterns("__pycache__"))
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        copyfile(TOP / name, sources / name)
    uv = [str(Path(sys.executable).parent / "uv")]
    build = [*uv, "build", "--quiet", "--wheel", "--no-build-isolation", "--offline"]
    subprocess.run([*build, "--out-dir", folder / "dist", sources], check=True)
    (wheel,) = (folder / "dist").glob("*.whl")
    into = ["--quiet", "--no-deps", "--offline", "--target", folder / "site", wheel]
    subprocess.run([*uv, "pip", "install", *into], check=True)
    return folder / "site"


def files(folder):
    found = {p.relative_to(folder) for p in folder.rglob("*") if p.is_file()}
    return {str(p) for p in found if "__pycache__" not in p.parts}


def test_the_installed_demo_runs_outside_its_sources(installed, tmp_path):
    mine = files(TOP / "jolvek")
    assert mine - files(installed / "jolvek") == set() and len(mine) > 400
    command = [sys.executable, "-P", "-m", "jolvek", "demo", "--port", "8795"]
    env = {"PYTHONPATH": str(installed), "PATH": "/usr/bin:/bin", "HOME": str(tmp_path)}
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, cwd=tmp_path, env=env)
    try:
        line = next(x for x in process.stdout if "Jolvek runs on" in x)
        root = re.search(r"http://[\d.:]+", line)[0]
        page = urllib.request.urlopen(f"{root}/").read().decode()
        assert "What does it take?" in page
        style = re.search(r'href="(/static/app\.css[^"]*)"', page)[1]
        assert len(urllib.request.urlopen(root + style).read()) > 10_000
    finally:
        process.kill()
        process.wait()
        process.stdout.close()


def test_the_unit_file_names_what_there_is():
    unit = configparser.ConfigParser(strict=False)
    unit.optionxform = str
    unit.read(TOP / "deploy/jolvek.service")
    words = unit["Service"]["ExecStart"].split()
    from jolvek.cli import main

    options = {o for p in main.commands[words[1]].params for o in p.opts}
    assert words[0].endswith("/jolvek") and {w for w in words if w.startswith("--")} <= options
    assert unit["Service"]["NoNewPrivileges"] == "true" and unit["Service"]["User"] != "root"


def test_the_container_file_builds_from_the_lock_as_nobody_special():
    lines = (TOP / "deploy/Containerfile").read_text(encoding="utf-8").replace("\\\n", " ")
    steps = [x.split(None, 1) for x in lines.splitlines() if x.strip() and x[0] != "#"]
    known = {
        "FROM",
        "WORKDIR",
        "COPY",
        "RUN",
        "USER",
        "VOLUME",
        "EXPOSE",
        "HEALTHCHECK",
        "ENTRYPOINT",
        "CMD",
    }
    assert {word for word, _ in steps} <= known
    assert "--require-hashes -r requirements.lock" in lines
    copied = [
        w
        for word, rest in steps
        if word == "COPY" and "--from" not in rest
        for w in rest.split()[:-1]
    ]
    assert [name for name in copied if not (TOP / name).exists()] == []
    users = [rest for word, rest in steps if word == "USER"]
    assert users == ["jolvek"]
    packages = re.findall(r"lib[\w.-]+", (TOP / "Makefile").read_text(encoding="utf-8"))
    assert [p for p in packages if p.startswith("libpango") and p not in lines] == []
