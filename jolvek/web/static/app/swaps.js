// An answer that waited for the one before goes where its place stands now: that one may have
// renewed the part of the page for which it was asked.
"use strict";

document.addEventListener("htmx:after:request", (event) => {
  const {
    ctx
  } = event.detail;
  const {
    target
  } = ctx;
  if (target?.id && !target.isConnected) {
    ctx.target = document.getElementById(target.id) || target;
  }
});
