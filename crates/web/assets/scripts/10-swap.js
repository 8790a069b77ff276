// Pieces of a page that the server drew anew take the place of those with the same id.
"use strict";

/** Sends a form's fields and gives the answer as text; older answers than the newest are dropped. */
class LiveQuestion {
  constructor(url) {
    this.url = url;
    this.sent = 0;
    this.shown = 0;
    this.busy = false;
    this.waiting = null;
  }

  /** Asks; while an answer is on its way only the newest question waits. */
  ask(fields, show) {
    if (this.busy) {
      this.waiting = [fields, show];
      return;
    }
    this.busy = true;
    const number = ++this.sent;
    fetch(this.url, { method: "POST", body: fields, headers: { "x-sequence": String(number) } })
      .then((answer) => (answer.ok ? answer.text() : Promise.reject(answer.status)))
      .then((text) => {
        if (number > this.shown) {
          this.shown = number;
          show(text);
        }
      })
      .catch(() => {
        // The page as it is stays; saving will say what is wrong.
      })
      .finally(() => {
        this.busy = false;
        if (this.waiting) {
          const [next, then] = this.waiting;
          this.waiting = null;
          this.ask(next, then);
        }
      });
  }

  /** Answers that are still on their way are not shown any more. */
  forget() {
    this.shown = this.sent;
    this.waiting = null;
  }
}

/** Puts each element of `html` that has an id where the page has that id. */
function swapById(html) {
  const parsed = new DOMParser().parseFromString(html, "text/html");
  for (const piece of parsed.querySelectorAll("[id^=live-]")) {
    const old = document.getElementById(piece.id);
    if (old && old.outerHTML !== piece.outerHTML) {
      old.replaceWith(document.importNode(piece, true));
    }
  }
}

/** A form's fields as they stand, with some set anew. */
function fieldsOf(form, changes) {
  const fields = new URLSearchParams(new FormData(form));
  for (const [name, value] of Object.entries(changes || {})) {
    fields.set(name, value);
  }
  return fields;
}
