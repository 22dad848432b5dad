// What scripts say, in the language of the page: English stands in the source.
"use strict";

const words = JSON.parse(document.getElementById("script-words")?.textContent || "{}");
const decimal = document.documentElement.lang === "en" ? "." : ",";

function tr(text, values = {}) {
  return (words[text] || text).replace(/%\((\w+)\)s/g, (_, key) => values[key]);
}
