// Figures as the pages write them: read off curves, grouped, and as times.
"use strict";

function between(xs, ys, x) {
  if (x < xs[0]) return ys[0];
  if (x > xs[xs.length - 1] * (1 + 1e-9)) return null;
  let i = 1;
  while (i < xs.length - 1 && xs[i] < x) i += 1;
  const f = (x - xs[i - 1]) / (xs[i] - xs[i - 1]);
  return ys[i - 1] + f * (ys[i] - ys[i - 1]);
}

function grouped(value, places) {
  const [whole, part] = value.toFixed(places).split(".");
  const spaced = whole.replace(/\B(?=(\d{3})+(?!\d))/g, "\u202f");
  return part ? `${spaced}${decimal}${part}` : spaced;
}

function clock(seconds) {
  const minutes = Math.floor(seconds / 60);
  return minutes > 60000 ? "> 999 h" :
    `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}

function inWords(seconds) {
  const minutes = Math.floor(seconds / 60);
  if (minutes >= 6000) return `${Math.floor(minutes / 60)} h`;
  return minutes >= 60 ? `${Math.floor(minutes / 60)}\u00a0h ${minutes % 60}\u00a0min` :
    `${minutes}\u00a0min`;
}
