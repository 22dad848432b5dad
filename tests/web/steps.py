"""What a user does again and again, by client."""

import io
from html.parser import HTMLParser

from PIL import Image

STATIONS = ("boat", "waters", "shortlist", "side-by-side", "day-out", "fitting", "offer")


class Forms(HTMLParser):
    """The forms of a page as what a browser would send of them: one dict a form, by its action."""

    def __init__(self, html):
        super().__init__()
        self.forms, self.now, self.by_id, self.select = [], None, {}, None
        self.area = ""
        self.feed(html)

    def handle_starttag(self, tag, attrs):
        a = dict(attrs)
        if tag == "form":
            self.now = {"action": a.get("action", ""), "method": a.get("method", "get")}
            self.now["fields"] = {}
            self.forms.append(self.now)
            self.by_id[a.get("id")] = self.now
        elif tag in ("input", "textarea"):
            self.entry(a)
            self.area = a["name"] if tag == "textarea" else ""
        elif tag == "select":
            self.select = a.get("name")
        elif tag == "option" and self.select and ("selected" in a or self.first()):
            self.now["fields"][self.select] = a.get("value", "")

    def handle_data(self, data):
        if self.area:
            self.now["fields"][self.area] += data

    def first(self):
        return self.select not in self.now["fields"]

    def handle_endtag(self, tag):
        if tag == "form":
            self.now = None
        elif tag == "select":
            self.select = None
        elif tag == "textarea":
            self.area = ""

    def entry(self, a):
        form = self.by_id.get(a["form"]) if "form" in a else self.now
        if form is None and "form" in a:
            form = {"action": "", "method": "post", "fields": {}}
            self.by_id[a["form"]] = form
        name, kind = a.get("name"), a.get("type", "text")
        if form is None or not name or kind in ("file", "submit"):
            return
        if kind in ("radio", "checkbox") and "checked" not in a:
            return
        fields = form["fields"]
        if kind == "checkbox" and name == "places":
            fields.setdefault(name, []).append(a["value"])
        else:
            fields[name] = a.get("value") or ""


def boat_form(client, number=2, station="boat"):
    """What a browser would send of a station's form."""
    html = client.get(f"/enquiry/{number}/{station}").text
    before = Forms(html.split('id="station-form"')[0]).by_id.get("station-form", {"fields": {}})
    form = Forms(html).by_id["station-form"]["fields"]
    return {k: v for k, v in {**before["fields"], **form}.items() if k != "csrf_token"}


def forms_to(client, address, action):
    """What the forms of a page that post to an action would send."""
    html = client.get(address).text
    found = [f["fields"] for f in Forms(html).forms if f["action"] == action]
    return [{k: v for k, v in fields.items() if k != "csrf_token"} for fields in found]


def pin(client, number=2, index=0):
    form = forms_to(client, f"/enquiry/{number}/shortlist", f"/enquiry/{number}/pin")[index]
    return client.post(f"/enquiry/{number}/pin", data=form)


def picture(size=(2400, 1200), kind="PNG"):
    out = io.BytesIO()
    Image.new("RGB", size, "#2F6B57").save(out, kind)
    out.seek(0)
    return out
