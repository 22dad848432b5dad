// Reads an angle from the phone laid on the boat into the field beside the button.
"use strict";
{
  const STEADY = 12; // readings whose mean is taken

  async function allowed() {
    const ask = window.DeviceOrientationEvent?.requestPermission;
    return !ask || (await ask.call(window.DeviceOrientationEvent)) === "granted";
  }

  document.addEventListener("click", async (event) => {
    const button = event.target.closest("[data-lean]");
    if (!button) return;
    const field = document.getElementById(button.dataset.lean);
    const told = button.parentElement.querySelector("[data-lean-told]");
    const upright = Number(button.dataset.upright || 0);
    if (!(await allowed())) {
      told.textContent = tr("The phone does not report its lean: type the angle.");
      return;
    }
    const readings = [];
    const give = setTimeout(() => {
      window.removeEventListener("deviceorientation", read);
      if (readings.length < STEADY) told.textContent =
        tr("This device does not report its lean: type the angle.");
    }, 4000);

    function read(reading) {
      if (reading.beta === null) return;
      readings.push(reading.beta);
      told.textContent = `${(reading.beta - upright).toFixed(1)}°`;
      if (readings.length < STEADY) return;
      clearTimeout(give);
      window.removeEventListener("deviceorientation", read);
      const mean = readings.reduce((a, b) => a + b, 0) / readings.length;
      const spread = Math.max(...readings) - Math.min(...readings);
      if (spread > 2) {
        told.textContent = tr("It was not still: lay it down and try again.");
        return;
      }
      const lean = mean - upright;
      field.value = ("signed" in button.dataset ? lean : Math.abs(lean)).toFixed(1);
      told.textContent = tr("Taken: %(angle)s°.", {
        angle: field.value
      });
      for (const kind of ["input", "change"]) field.dispatchEvent(new Event(kind, {
        bubbles: true
      }));
    }
    window.addEventListener("deviceorientation", read);
  });
  document.addEventListener("alpine:initialized", () => {
    if (!window.DeviceOrientationEvent || !matchMedia("(pointer: coarse)").matches) return;
    for (const box of document.querySelectorAll("[data-lean-box]")) box.hidden = false;
  });
}
