"use strict";
// Tables sort by a click on a header and filter by a word; without script they are plain tables.
(function () {
  const said = document.getElementById("said");

  function valueOf(row, column) {
    const cell = row.cells[column];
    if (cell.dataset.value === undefined) return cell.textContent.trim().toLowerCase();
    return cell.dataset.value === "" ? null : Number(cell.dataset.value);
  }

  // What has no value stands last either way.
  function compare(a, b, sign) {
    if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
    return typeof a === "number" ? sign * (a - b) : sign * a.localeCompare(b);
  }

  function sort(table, header) {
    const column = header.cellIndex;
    const falls = header.getAttribute("aria-sort") === "none"
      ? header.classList.contains("number")
      : header.getAttribute("aria-sort") === "ascending";
    const body = table.tBodies[0];
    const rows = Array.from(body.rows).map((row) => [valueOf(row, column), row]);
    rows.sort((a, b) => compare(a[0], b[0], falls ? -1 : 1));
    body.append(...rows.map((pair) => pair[1]));
    for (const other of table.tHead.rows[0].cells) other.setAttribute("aria-sort", "none");
    header.setAttribute("aria-sort", falls ? "descending" : "ascending");
    said.textContent = table.caption.textContent + ", sorted by " + header.textContent +
      (falls ? ", falling" : ", rising");
  }

  function addSorting(table) {
    for (const header of table.tHead.rows[0].cells) {
      const button = document.createElement("button");
      button.type = "button";
      button.textContent = header.textContent;
      button.addEventListener("click", () => sort(table, header));
      header.replaceChildren(button);
      header.setAttribute("aria-sort", "none");
    }
  }

  // A line before `place` that hides those of `things` that lack a word of it.
  function addFilter(place, things, what, id) {
    const label = document.createElement("label");
    label.textContent = "Only " + what + " with ";
    const input = document.createElement("input");
    input.type = "search";
    if (id) input.setAttribute("aria-controls", id);
    label.append(input);
    const count = document.createElement("output");
    const texts = things.map((thing) => thing.textContent.toLowerCase());
    input.addEventListener("input", () => {
      const words = input.value.toLowerCase().split(/\s+/).filter(Boolean);
      let shown = 0;
      things.forEach((thing, at) => {
        thing.hidden = !words.every((word) => texts[at].includes(word));
        shown += thing.hidden ? 0 : 1;
      });
      count.textContent = words.length ? shown + " of " + things.length : "";
    });
    const line = document.createElement("div");
    line.className = "filter";
    line.append(label, count);
    place.before(line);
  }

  const few = 8;
  for (const table of document.querySelectorAll("table")) {
    const rows = Array.from(table.tBodies[0].rows);
    if (rows.length > few) addFilter(table.parentElement, rows, "rows", table.id);
    if (rows.length > 1) addSorting(table);
  }
  const cards = Array.from(document.querySelectorAll(".card"));
  if (cards.length > few) addFilter(cards[0], cards, "items", null);
  // A link to a card that the filter hides shows it again.
  window.addEventListener("hashchange", () => {
    const target = document.getElementById(location.hash.slice(1));
    if (target && target.hidden) target.hidden = false;
  });
})();
