// Dragging: the Shortlist's field, weights along the boat, legs of the day.
"use strict";

// Follows a pointer until it is lifted; where the browser takes it away (to scroll), `gone`.
function follow(where, move, lifted, gone) {
  const end = (event) => {
    where.removeEventListener("pointermove", move);
    where.removeEventListener("pointerup", end);
    where.removeEventListener("pointercancel", end);
    (event.type === "pointerup" ? lifted : gone)?.(event);
  };
  where.addEventListener("pointermove", move);
  where.addEventListener("pointerup", end);
  where.addEventListener("pointercancel", end);
}

// Dragging over the Shortlist's field narrows price and range.
document.addEventListener("pointerdown", (down) => {
  const svg = down.target.closest && down.target.closest("#field");
  if (!svg) return;
  const place = (event) => {
    const box = svg.getBoundingClientRect();
    return [((event.clientX - box.left) / box.width) * svg.viewBox.baseVal.width, ((event
      .clientY - box.top) / box.height) * svg.viewBox.baseVal.height];
  };
  const from = place(down);
  const brush = document.getElementById("brush");
  svg.setPointerCapture(down.pointerId);
  const move = (event) => {
    const to = place(event);
    for (const [name, value] of [
        ["x", Math.min(from[0], to[0])],
        ["y", Math.min(from[1], to[1])],
        ["width", Math.abs(from[0] - to[0])],
        ["height", Math.abs(from[1] - to[1])]
      ]) brush.setAttribute(name, value.toFixed(1));
  };
  const up = (event) => {
    const to = place(event);
    const d = svg.dataset;
    const price = (x) => Math.max(0, ((x - d.x0) / (d.x1 - d.x0)) * d.xMax);
    const range = (y) => Math.max(0, ((d.y0 - y) / (d.y0 - d.y1)) * d.yMax);
    const small = Math.abs(from[0] - to[0]) < 6 && Math.abs(from[1] - to[1]) < 6;
    const set = {
      price_min: price(Math.min(from[0], to[0])).toFixed(0),
      price_max: price(Math.max(from[0], to[0])).toFixed(0),
      range_min: range(Math.max(from[1], to[1])).toFixed(1),
      range_max: range(Math.min(from[1], to[1])).toFixed(1)
    };
    for (const [id, value] of Object.entries(set)) document.getElementById(id).value = small ?
      "" : value;
    if (small) move({
      clientX: -9,
      clientY: -9
    }), brush.setAttribute("width", "0");
    document.querySelector(".narrowing").open = true;
    document.getElementById("narrow").dispatchEvent(new Event("change", {
      bubbles: true
    }));
  };
  follow(svg, move, up, () => brush.setAttribute("width", "0"));
});

// Dragging a weight along the boat moves its slider.
document.addEventListener("pointerdown", (down) => {
  const weight = down.target.closest && down.target.closest(".weight");
  const slider = weight && document.getElementById(`w-${weight.dataset.weight}`);
  if (!slider) return;
  down.preventDefault();
  const svg = weight.ownerSVGElement;
  const perPixel = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width / weight
    .dataset.scale;
  const perMetre = (slider.max - 0) / (document.getElementById("fit-form").dataset.length ||
    slider.max);
  const from = Number(slider.value);
  const move = (event) => {
    const value = Math.min(Math.max(from + (event.clientX - down.clientX) * perPixel *
      perMetre, Number(slider.min)), Number(slider.max)).toFixed(2);
    if (value === slider.value) return;
    slider.value = value;
    slider.dispatchEvent(new Event("input", {
      bubbles: true
    }));
  };
  const keep = () => document.getElementById(slider.id).dispatchEvent(new Event("change", {
    bubbles: true
  }));
  follow(document, move, keep, keep);
});

// Dragging a leg of the day's chart up or down makes it faster or slower.
document.addEventListener("pointerdown", (down) => {
  const band = down.target.closest && down.target.closest(".legband");
  const slider = band && document.getElementById(`v${band.dataset.leg}`);
  if (!slider) return;
  down.preventDefault();
  const from = Number(slider.value);
  const span = slider.max - slider.min;
  const move = (event) => {
    const value = Math.min(Math.max(from + ((down.clientY - event.clientY) / 160) * span,
      Number(slider.min)), Number(slider.max)).toFixed(1);
    if (value === slider.value) return;
    slider.value = value;
    slider.dispatchEvent(new Event("input", {
      bubbles: true
    }));
  };
  follow(document, move);
});

document.addEventListener("input", (event) => {
  if (event.target.type !== "range") return;
  const shown = event.target.parentElement.querySelector(`output[for="${event.target.id}"]`);
  if (shown) shown.textContent = event.target.value.replace(".", decimal);
});
