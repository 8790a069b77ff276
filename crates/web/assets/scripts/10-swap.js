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
    fetchText(this.url, { method: "POST", body: fields, headers: { "x-sequence": String(number) } })
      .then((text) => {
        if (number > this.shown) {
          this.shown = number;
          show(text);
        }
        liveState("");
      })
      .catch((error) => liveState(error.message === "signedOut" ? "signedOut" : "failed"))
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

/** The text of an answer; one that is late, fails, or finds nobody signed in says so. */
function fetchText(url, options) {
  const late = window.setTimeout(() => liveState("late"), 2000);
  return fetch(url, options)
    .then((answer) => {
      // Without a session the server leads to the page on which one signs in.
      if (answer.redirected) {
        throw new Error("signedOut");
      }
      if (!answer.ok) {
        throw new Error("failed");
      }
      return answer.text();
    })
    .finally(() => window.clearTimeout(late));
}

/** Says that the figures on the page are not those of what is typed: an answer failed, is late, or nobody is signed in. */
function liveState(state) {
  const line = document.getElementById("livestate");
  line.textContent = state ? line.dataset[state] : "";
  line.hidden = !state;
  document.body.classList.toggle("is-stale", Boolean(state));
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

/** A form's fields, with some replaced. */
function fieldsOf(form, changes) {
  const fields = new URLSearchParams(new FormData(form));
  for (const [name, value] of Object.entries(changes || {})) {
    fields.set(name, value);
  }
  return fields;
}
