"""Nothing typed is lost: early keys, no connection, two tabs, leaving at once, a refused field."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def tab(context, server):
    """A tab whose console may tell of a cut connection."""
    opened = context.new_page()
    opened.goto(f"{server}/enquiry/3/boat")
    return opened


def gear(page):
    return page.get_by_role("textbox", name="Gear", exact=True)


def kept(page):
    return page.locator("#kept [role=status]")


def test_a_key_pressed_before_the_page_listens_is_not_lost(page, server):
    held = []
    page.route(re.compile("keys.js"), lambda route: held.append(route))
    page.goto(f"{server}/enquiry/3/boat", wait_until="commit")
    page.locator("[data-station='2']").wait_for(state="attached")
    while not page.evaluate("Boolean(window.jolvekEarly)"):
        page.wait_for_timeout(20)
    page.keyboard.press("2")
    assert page.url.endswith("/boat") and not page.evaluate(
        "document.documentElement.dataset.ready"
    )
    while not held:
        page.wait_for_timeout(20)
    held[0].continue_()
    expect(page).to_have_url(re.compile("/enquiry/3/waters$"))


def test_a_field_changed_before_the_page_listens_is_saved(page, server):
    held = []
    page.route(re.compile("htmx.min.js"), lambda route: held.append(route))
    page.goto(f"{server}/enquiry/3/boat", wait_until="commit")
    gear(page).wait_for(state="attached")
    while not page.evaluate("Boolean(window.jolvekEarly)"):
        page.wait_for_timeout(20)
    gear(page).fill("37")
    while not held:
        page.wait_for_timeout(20)
    held[0].continue_()
    expect(kept(page)).to_be_visible()
    page.unroute_all()
    page.reload()
    expect(gear(page)).to_have_value("37")


def weight(page):
    """The weight in kg that the answer says."""
    result = page.locator("h1.answer").text_content()
    return int(re.sub(r"\D", "", re.search(r"weighs\s([\d\s]+)", result)[1]))


def test_the_answer_follows_each_key_and_a_pause_keeps_what_was_typed(page, server):
    """A refused field stays marked meanwhile, and keys that come faster than answers count."""
    page.goto(f"{server}/enquiry/3/boat")
    answer, length = page.locator("h1.answer"), page.get_by_role("textbox", name="Length overall")
    gear(page).fill("10")
    length.fill("banana")
    expect(length).to_have_attribute("aria-invalid", "true")
    before, light = answer.text_content(), weight(page)
    waiting = []
    page.route("**/enquiry/3/boat", lambda route: waiting.append(route), times=1)
    gear(page).press("End")
    page.keyboard.type("0")
    expect(answer).not_to_have_text(before)
    assert 90 <= weight(page) - light < 100
    expect(length).to_have_attribute("aria-invalid", "true")
    while not waiting:
        page.wait_for_timeout(20)
    waiting[0].continue_()
    length.fill("4.8")
    gear(page).press_sequentially("5")
    gear(page).press("Backspace")
    expect(page.locator("#refused")).to_be_empty()
    assert 90 <= weight(page) - light < 100
    page.reload()
    expect(gear(page)).to_have_value("100")


def test_two_tabs_change_different_fields_and_both_stay(tab, context, server):
    other = context.new_page()
    other.goto(tab.url)
    gear(tab).fill("41")
    expect(kept(tab)).to_be_visible()
    other.get_by_role("textbox", name="Title").fill("Two tabs")
    expect(kept(other)).to_be_visible()
    gear(tab).fill("42")
    note = tab.locator("#theirs")  # no later save takes it away
    expect(note).to_contain_text("Changed in another window: Title")
    with tab.expect_response(
        lambda r: r.url.endswith("/boat") and "gear=43" in (r.request.post_data or "")
    ):
        gear(tab).fill("43")
    expect(note).to_contain_text("Changed in another window: Title")
    other.reload()
    expect(gear(other)).to_have_value("43")
    expect(other.get_by_role("textbox", name="Title")).to_have_value("Two tabs")


def test_without_a_connection_what_is_typed_waits_and_is_sent_again(tab, context):
    context.set_offline(True)
    gear(tab).fill("53")
    expect(tab.locator("#saving")).to_contain_text("waits and is sent again")
    context.set_offline(False)
    expect(kept(tab)).to_be_visible()
    expect(tab.locator("#saving")).to_be_hidden()
    tab.reload()
    expect(gear(tab)).to_have_value("53")


def test_a_server_that_fails_is_told_and_asked_again(tab):
    tab.route("**/enquiry/3/boat", lambda route: route.fulfill(status=500, body="broken"), times=1)
    gear(tab).fill("58")
    expect(tab.locator("#saving")).to_contain_text("the server answered 500")
    expect(kept(tab)).to_be_visible()
    tab.reload()
    expect(gear(tab)).to_have_value("58")


def test_leaving_at_once_keeps_what_was_typed(tab, server):
    gear(tab).fill("64")
    tab.goto(f"{server}/rules")
    tab.goto(f"{server}/enquiry/3/boat")
    for _ in range(40):  # it travels beside the next page, which may be first
        if gear(tab).input_value() == "64":
            break
        tab.wait_for_timeout(100)
        tab.reload()
    expect(gear(tab)).to_have_value("64")


@pytest.mark.parametrize("width", [390, 1280])
def test_a_refused_field_is_marked_and_named_and_the_rest_is_kept(page, server, width):
    page.set_viewport_size({"width": width, "height": 800})
    page.goto(f"{server}/enquiry/3/boat")
    length = page.get_by_role("textbox", name="Length overall")
    length.fill("banana")
    gear(page).fill(str(70 + width % 7))
    result = page.locator("main [role=alert]")
    expect(result).to_contain_text("The rest is saved")
    expect(result.get_by_role("link", name="Length overall")).to_be_in_viewport()
    expect(length).to_have_attribute("aria-invalid", "true")
    expect(length).to_have_value("banana")
    length.fill("3.2")
    expect(result).to_have_count(0)
    expect(length).not_to_have_attribute("aria-invalid", "true")
    page.reload()
    expect(gear(page)).to_have_value(str(70 + width % 7))


def test_keep_pressed_right_after_typing_is_no_clash(page, server):
    page.goto(f"{server}/enquiry/3/boat")
    for turn in range(4):
        gear(page).fill(str(80 + turn))
        page.wait_for_timeout(90 * turn)
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_text("Saved.", exact=True)).to_be_visible()
        expect(gear(page)).to_have_value(str(80 + turn))


def test_an_answer_that_does_not_come_is_told_and_what_stands_stays(context, server):
    tab = context.new_page()
    tab.goto(f"{server}/")
    tab.get_by_role("textbox", name="Length", exact=True).fill("2.9")
    answer = tab.locator("#quick-answer .answer")
    expect(answer).to_be_visible()
    tab.route(re.compile(r"/\?|quick"), lambda route: route.fulfill(status=500, body="broken"))
    tab.get_by_role("textbox", name="Length", exact=True).fill("3.1")
    expect(tab.locator("#saving")).to_contain_text("from before")
    expect(answer).to_be_visible()
    tab.unroute_all()
    tab.get_by_role("textbox", name="Length", exact=True).fill("3.3")
    expect(tab.locator("#saving")).to_be_hidden()


def test_what_the_catalogue_has_follows_or_says_that_it_does_not(context, server):
    page = context.new_page()
    page.goto(server)
    length = page.get_by_role("textbox", name="Length", exact=True)
    length.fill("3.1")
    line = page.locator("#quick-answer .from-catalogue")
    expect(line).to_contain_text("Looking through")
    expect(line).to_contain_text("setups do it")
    page.route("**/from-catalogue?**", lambda route: route.abort())
    length.fill("3.2")
    expect(line).to_contain_text("could not be read")
    page.close()


def _changed_fast(page, field, values):
    """Each value 25 ms after the one before, as by a slider that is dragged; how many requests were
    under way at once, at most, until the last of them was answered.
    """
    now, most = set(), [0]

    def asked(request):
        if "catalogue" not in request.url:  # comes after an answer, beside the next
            now.add(request)
        most[0] = max(most[0], len(now))

    def over(request):
        now.discard(request)

    heard = {"request": asked, "requestfinished": over, "requestfailed": over}
    for kind, hear in heard.items():
        page.on(kind, hear)
    page.evaluate(
        """([id, values]) => new Promise((done) => {
          const next = () => {
            const field = document.getElementById(id);
            field.value = values.shift();
            field.dispatchEvent(new Event("input", { bubbles: true }));
            if (values.length) setTimeout(next, 25); else setTimeout(done, 100);
          };
          next();
        })""",
        [field, values],
    )
    quiet = 0
    while quiet < 20:  # a busy machine fires its timers late
        page.wait_for_timeout(50)
        quiet = 0 if now else quiet + 1
    for kind, hear in heard.items():
        page.remove_listener(kind, hear)
    return most[0]


@pytest.mark.parametrize(
    ("path", "field", "step", "shown"),
    [
        ("/", "length", 0.1, "#quick-answer .figures"),
        ("/enquiry/2/day-out", "wind", 1, "#day .answer"),
    ],
)
def test_the_last_of_many_answers_stands_and_none_waits_behind_another(
    page, fitted_server, path, field, step, shown
):
    page.goto(f"{fitted_server}{path}")
    before = page.locator(shown).inner_text()
    values = [f"{2 + step * i:g}" for i in range(24)]
    assert _changed_fast(page, field, values) == 1
    stands = page.locator(shown).inner_text()
    page.reload()  # the address has what was asked last
    expect(page.locator(f"#{field}")).to_have_value(values[-1])
    assert page.locator(shown).inner_text() == stands != before


def test_the_last_answer_of_many_keys_stands_before_save_is_pressed(context, fitted_server):
    page = context.new_page()
    page.goto(f"{fitted_server}/enquiry/2/boat")
    _changed_fast(page, "gear", [str(3 * i) for i in range(1, 20)])
    typed = page.locator("#figures .answer").inner_text()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Saved.", exact=True)).to_be_visible()
    assert page.locator("#figures .answer").inner_text() == typed
    page.close()


def test_what_is_chosen_while_an_answer_is_under_way_stays_chosen(page, server):
    page.goto(f"{server}/enquiry/6/by-hand")
    held = []
    page.route(re.compile(r"by-hand\?"), lambda route: held.append(route))
    page.locator("#motor").select_option(index=12)
    while not held:
        page.wait_for_timeout(20)
    page.locator("#battery").select_option("ampholt-4850|1|1")
    held[0].continue_()  # its answer knows of no battery
    while len(held) < 2:
        page.wait_for_timeout(20)
    page.locator("#mount").select_option("stegwell-through")
    held[1].continue_()
    while len(held) < 3:
        page.wait_for_timeout(20)
    held[2].continue_()
    expect(page.locator("#judged .answer")).to_contain_text("nm")
    expect(page.locator("#battery")).to_have_value("ampholt-4850|1|1")


def test_a_key_pressed_while_a_form_is_sent_waits_for_its_answer(page, server):
    page.goto(f"{server}/enquiry/6/shortlist")
    held = []
    page.route(re.compile("/pin$"), lambda route: held.append(route))
    page.get_by_role("button", name=re.compile("^Pin ")).first.click(no_wait_after=True)
    while not held:
        page.wait_for_timeout(20)
    page.keyboard.press("5")
    page.wait_for_timeout(100)
    assert page.url.endswith("/shortlist")
    held[0].continue_()
    expect(page).to_have_url(re.compile("/day-out"))
    expect(page.locator(".answer").first).not_to_contain_text("Nothing is pinned")
