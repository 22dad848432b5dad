"""What a user does again and again, by client."""

import io
import re

from PIL import Image


def boat_form(client, number=2, station="boat"):
    """What a browser would send of a station's form."""
    html = client.get(f"/enquiry/{number}/{station}").text
    form = {}
    for tag in re.findall(r"<input[^>]*>", html.split('id="find"')[0] + html.split('id="main"')[1]):
        name, value = re.search(r'name="([^"]+)"', tag), re.search(r'value="([^"]*)"', tag)
        if not name or 'type="file"' in tag or name[1] in ("q", "csrf_token"):
            continue
        if 'type="radio"' in tag or 'type="checkbox"' in tag:
            if " checked" in tag and name[1] != "places":
                form[name[1]] = value[1]
        else:
            form[name[1]] = value[1] if value else ""
    for name, options in re.findall(
        r'<select[^>]*name="([^"]+)"[^>]*>(.*?)</select>', html.split('id="main"')[1], re.S
    ):
        chosen = re.search(r'value="([^"]*)" selected', options)
        form[name] = chosen[1] if chosen else ""
    form["places"] = re.findall(r'name="places" value="(\w+)" checked', html)
    return {k: v for k, v in form.items() if k not in ("other", "letter", "make")}


def pin(client, number=2, index=0):
    html = client.get(f"/enquiry/{number}/shortlist").text
    form = re.findall(rf'action="/enquiry/{number}/pin">(.*?)</form>', html, re.S)[index]
    return client.post(
        f"/enquiry/{number}/pin", data=dict(re.findall(r'name="(\w+)" value="([^"]*)"', form))
    )


def picture(size=(2400, 1200), kind="PNG"):
    out = io.BytesIO()
    Image.new("RGB", size, "#2F6B57").save(out, kind)
    out.seek(0)
    return out
