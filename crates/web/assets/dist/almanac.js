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
// The keyboard: ? lists the keys, g and a letter goes to a view, Ctrl or Cmd and Z undoes.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("keys", () => ({
    afterG: false,

    init() {
      document.addEventListener("keydown", (event) => this.pressed(event));
      // On a phone the views and the steps scroll sideways: the current one is brought into sight.
      for (const current of document.querySelectorAll(".views [aria-current], .spine [aria-current]")) {
        current.scrollIntoView({ block: "nearest", inline: "center" });
      }
    },

    toggle() {
      const help = this.$refs.help;
      if (help.open) {
        help.close();
      } else {
        help.showModal();
      }
    },

    pressed(event) {
      const typing = event.target.closest("input, select, textarea");
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !event.shiftKey) {
        const undo = document.getElementById("undo");
        // Inside a field the browser's own undo takes back what was typed.
        if (undo && !typing) {
          event.preventDefault();
          undo.requestSubmit();
        }
        return;
      }
      if (typing || event.ctrlKey || event.metaKey || event.altKey) {
        return;
      }
      if (this.afterG) {
        this.afterG = false;
        const view = document.querySelector(`.views a[data-key="${CSS.escape(event.key)}"]`);
        if (view) {
          event.preventDefault();
          view.click();
        }
      } else if (event.key === "g") {
        this.afterG = true;
      } else if (event.key === "?") {
        this.toggle();
      }
    },
  }));
});
// The position of this device, for the form of a place.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("locate", () => ({
    message: "",

    find() {
      const form = this.$root;
      const none = form.dataset.none;
      const failed = form.dataset.failed;
      if (!navigator.geolocation) {
        this.message = none;
        return;
      }
      navigator.geolocation.getCurrentPosition(
        (found) => {
          const { latitude, longitude, altitude } = found.coords;
          form.elements.latitude.value = latitude.toFixed(5);
          form.elements.longitude.value = longitude.toFixed(5);
          // The height comes in metres; a field in feet is left to be typed.
          if (
            altitude !== null &&
            form.elements.elevation.value === "" &&
            form.elements.units.value === "metric"
          ) {
            form.elements.elevation.value = altitude.toFixed(0);
          }
          if (form.elements.time_zone.value === "") {
            form.elements.time_zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
          }
          this.message = "";
        },
        () => {
          this.message = failed;
        },
        { enableHighAccuracy: true, timeout: 10000 },
      );
    },
  }));
});
// A file that is too large is refused before it is sent.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("upload", () => ({
    message: "",

    check(event) {
      const form = this.$root;
      const file = form.elements.file.files[0];
      this.message = "";
      if (file && file.size > Number(form.dataset.most)) {
        event.preventDefault();
        this.message = form.dataset.tooLarge;
      }
    },
  }));

  // A column or a unit that was chosen by hand shows at once what follows from it.
  window.Alpine.data("mapping", () => ({
    settle(event) {
      if (event.target.tagName === "SELECT") {
        this.$root.requestSubmit(this.$refs.look);
      }
    },
  }));
});
// The worksheet of stations: figures follow while it is typed in, worked out by the server.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("worksheet", () => ({
    question: null,
    open: "",
    timer: 0,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      document.addEventListener("keydown", (event) => this.move(event));
    },

    form() {
      return document.getElementById("sheet");
    },

    /** The station of a row becomes the one whose working is open. */
    opened(event) {
      const row = event.target.closest("tr[data-station]");
      if (row && row.dataset.station !== this.open) {
        this.open = row.dataset.station;
        for (const other of document.querySelectorAll("tr.sel")) {
          other.classList.remove("sel");
        }
        row.classList.add("sel");
        this.ask();
      }
    },

    changed(event) {
      const kcell = document.querySelector(`[data-coefficient="${CSS.escape(event.target.name)}"]`);
      if (kcell) {
        kcell.hidden = event.target.value !== "coefficient";
      }
      const row = event.target.closest("tr[data-station]");
      const name = row && row.querySelector("input");
      if (name) {
        row.classList.toggle("spare", name.value.trim() === "");
      }
      window.clearTimeout(this.timer);
      this.timer = window.setTimeout(() => this.ask(), 120);
    },

    ask() {
      this.question.ask(fieldsOf(this.form(), { open: this.open }), swapById);
    },

    /** J and K go through the stations when no cell is being typed in. */
    move(event) {
      if (event.target.closest("input, select, textarea") || event.ctrlKey || event.metaKey) {
        return;
      }
      const step = { j: 1, k: -1 }[event.key];
      if (step) {
        const rows = [...document.querySelectorAll("tr[data-station]")];
        const at = rows.findIndex((row) => row.dataset.station === this.open);
        const next = rows[Math.min(Math.max(at + step, 0), rows.length - 1)];
        next.querySelector("th a").focus();
      }
    },
  }));
});
// The Year: a month's handle is dragged or moved by keys; the server works out what it would give.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("yearPlate", () => ({
    question: null,
    month: 0,
    percent: 0,
    before: "",
    dragging: false,
    moved: false,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      // The plate is drawn anew while a month is in hand, so its events are taken above it.
      this.$root.addEventListener("pointerdown", (event) => this.grab(event));
      this.$root.addEventListener("keydown", (event) => this.key(event));
      this.$root.addEventListener("focusout", (event) => this.left(event));
      document.addEventListener("keydown", (event) => this.through(event));
      window.addEventListener("pointermove", (event) => this.drag(event));
      window.addEventListener("pointerup", () => this.drop());
      window.addEventListener("pointercancel", () => this.cancel());
    },

    plate() {
      return this.$root.querySelector(".yearplate");
    },

    slider(month) {
      return document.getElementById(`slider-${month}`);
    },

    /** The percent at a height on the screen, by the plate's own scale. */
    percentAt(clientY) {
      const plate = this.plate();
      const box = plate.getBoundingClientRect();
      const y = ((clientY - box.top) / box.height) * plate.viewBox.baseVal.height;
      return Math.max(0, (Number(plate.dataset.zero) - y) / Number(plate.dataset.pixels));
    },

    take(month, percent) {
      if (this.month !== month) {
        this.before =
          document.getElementById("live-year").outerHTML + document.getElementById("live-side").outerHTML;
      }
      this.month = month;
      this.percent = percent;
    },

    grab(event) {
      const slider = event.target.closest(".slider");
      if (!slider || event.button !== 0) {
        return;
      }
      event.preventDefault();
      slider.focus();
      this.dragging = true;
      this.take(Number(slider.dataset.month), Number(slider.getAttribute("aria-valuenow")));
    },

    drag(event) {
      if (this.dragging) {
        event.preventDefault();
        this.moved = true;
        this.percent = this.percentAt(event.clientY);
        this.ask();
      }
    },

    drop() {
      if (!this.dragging) {
        return;
      }
      this.dragging = false;
      if (this.moved) {
        this.moved = false;
        this.keep();
      } else {
        // A press without a move opens the month.
        const link = this.$root.querySelector(`.yeartab .big td:nth-of-type(${this.month}) a`);
        link.click();
      }
    },

    key(event) {
      const slider = event.target.closest(".slider");
      if (!slider) {
        return;
      }
      // The controller's step, as the server says it.
      const step = Number(this.$root.dataset.step);
      const moves = {
        ArrowUp: step,
        ArrowRight: step,
        ArrowDown: -step,
        ArrowLeft: -step,
        PageUp: 5 * step,
        PageDown: -5 * step,
      };
      const now = Number(slider.getAttribute("aria-valuenow"));
      if (event.key in moves) {
        event.preventDefault();
        this.take(Number(slider.dataset.month), Math.max(0, now + moves[event.key]));
        this.ask();
      } else if (event.key === "Home" || event.key === "End") {
        event.preventDefault();
        this.take(
          Number(slider.dataset.month),
          event.key === "Home" ? 0 : Number(slider.getAttribute("aria-valuemax")),
        );
        this.ask();
      } else if (event.key === "Enter" && this.month) {
        event.preventDefault();
        this.keep();
      } else if (event.key === "Escape" && this.month) {
        event.preventDefault();
        this.cancel();
      }
    },

    ask() {
      const form = document.getElementById("month-form");
      const fields = fieldsOf(form, { month: String(this.month), percent: String(this.percent) });
      fields.delete("waterings");
      this.question.ask(fields, (html) => this.show(html));
    },

    show(html) {
      const focused = document.activeElement && document.activeElement.id;
      swapById(html);
      if (focused) {
        const again = document.getElementById(focused);
        if (again) {
          again.focus();
        }
      }
    },

    /** Saves the month in hand as a plain form would. */
    keep() {
      this.question.forget();
      const form = document.getElementById("month-form");
      form.elements.month.value = String(this.month);
      form.elements.percent.value = String(this.percent);
      form.elements.waterings.disabled = true;
      const how = document.createElement("input");
      how.type = "hidden";
      how.name = "do";
      how.value = "drag";
      form.append(how);
      this.month = 0;
      form.submit();
    },

    /** Puts the month back as it is saved. */
    cancel() {
      this.dragging = false;
      this.moved = false;
      if (this.month) {
        const month = this.month;
        this.question.forget();
        this.month = 0;
        swapById(this.before);
        this.slider(month).focus();
      }
    },

    /** A month in hand that is left without Enter goes back. */
    left(event) {
      const goesTo = event.relatedTarget;
      if (this.month && !this.dragging && goesTo && !goesTo.closest(".yearplate, #live-side")) {
        this.cancel();
      }
    },

    /** J and K go through the months when nothing is being typed. */
    through(event) {
      if (event.target.closest("input, select, textarea") || event.ctrlKey || event.metaKey) {
        return;
      }
      const step = { j: 1, k: -1 }[event.key];
      if (step) {
        const at = Number(document.activeElement.dataset.month || 0);
        this.slider(Math.min(Math.max(at + step, 1), 12)).focus();
      }
    },
  }));
});
// The Week: a start is dragged or moved by keys; the server works out what it would run.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("weekPlate", () => ({
    question: null,
    program: "",
    from: "",
    minutes: 0,
    grabbed: 0,
    before: "",
    dragging: false,
    moved: false,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      // The plate is drawn anew while a start is in hand, so its events are taken above it.
      this.$root.addEventListener("pointerdown", (event) => this.grab(event));
      this.$root.addEventListener("keydown", (event) => this.key(event));
      this.$root.addEventListener("focusout", (event) => this.left(event));
      window.addEventListener("pointermove", (event) => this.drag(event));
      window.addEventListener("pointerup", () => this.drop());
      window.addEventListener("pointercancel", () => this.cancel());
    },

    /** Minutes of the day at a place on the screen, by the plate's own scale. */
    minutesAt(clientX) {
      const plate = this.$root.querySelector(".weekplate");
      const box = plate.getBoundingClientRect();
      const x = ((clientX - box.left) / box.width) * plate.viewBox.baseVal.width;
      return ((x - Number(plate.dataset.left)) / Number(plate.dataset.hour)) * 60;
    },

    take(handle) {
      if (this.program === "") {
        this.before =
          document.getElementById("live-week").outerHTML + document.getElementById("live-side").outerHTML;
        this.program = handle.dataset.program;
        this.from = handle.dataset.start;
        this.minutes = Number(handle.dataset.minutes);
      }
    },

    grab(event) {
      const handle = event.target.closest(".starth");
      if (!handle || event.button !== 0) {
        return;
      }
      event.preventDefault();
      this.cancelled();
      this.take(handle);
      this.grabbed = this.minutesAt(event.clientX) - this.minutes;
      this.dragging = true;
    },

    drag(event) {
      if (this.dragging) {
        event.preventDefault();
        this.moved = true;
        this.minutes = this.minutesAt(event.clientX) - this.grabbed;
        this.ask();
      }
    },

    drop() {
      if (!this.dragging) {
        return;
      }
      this.dragging = false;
      if (this.moved) {
        this.moved = false;
        this.keep();
      } else {
        this.program = "";
      }
    },

    key(event) {
      const handle = event.target.closest(".starth");
      if (!handle) {
        return;
      }
      const step = Number(this.$root.dataset.step);
      const moves = { ArrowRight: step, ArrowUp: step, ArrowLeft: -step, ArrowDown: -step, PageUp: 60, PageDown: -60 };
      if (event.key in moves) {
        event.preventDefault();
        this.take(handle);
        this.minutes = Math.min(1439, Math.max(0, this.minutes + moves[event.key]));
        this.ask();
      } else if (event.key === "Enter" && this.program !== "") {
        event.preventDefault();
        this.keep();
      } else if (event.key === "Escape" && this.program !== "") {
        event.preventDefault();
        this.cancel();
      }
    },

    fields() {
      const form = document.querySelector("#program form");
      return {
        token: form.elements.token.value,
        version: form.elements.version.value,
        action: form.elements.action.value,
        do: "move",
        program: this.program,
        from: this.from,
        to: String(this.minutes),
      };
    },

    ask() {
      this.question.ask(new URLSearchParams(this.fields()), (html) => this.show(html));
    },

    show(html) {
      swapById(html);
      const again = this.$root.querySelector(`.starth.in-hand[role="slider"]`);
      if (again && !this.dragging) {
        again.focus();
      }
    },

    /** Saves the start in hand as a plain form would. */
    keep() {
      this.question.forget();
      const form = document.createElement("form");
      form.method = "post";
      form.action = this.$root.dataset.preview.replace(/preview$/, "change");
      for (const [name, value] of Object.entries(this.fields())) {
        const field = document.createElement("input");
        field.type = "hidden";
        field.name = name;
        field.value = value;
        form.append(field);
      }
      this.program = "";
      document.body.append(form);
      form.submit();
    },

    cancelled() {
      this.dragging = false;
      this.moved = false;
    },

    /** Puts the start back as it is saved. */
    cancel() {
      this.cancelled();
      if (this.program !== "") {
        this.question.forget();
        this.program = "";
        swapById(this.before);
      }
    },

    /** A start in hand that is left without Enter goes back. */
    left(event) {
      const goesTo = event.relatedTarget;
      if (this.program !== "" && !this.dragging && goesTo && !goesTo.closest(".weekplate, #live-side")) {
        this.cancel();
      }
    },
  }));
});
// Forms: parts that belong to a choice show with it; a form that is looked at while it is filled in.
"use strict";

/** Shows the parts of a form whose choice is made, and hides the others. */
function showParts(root) {
  for (const part of root.querySelectorAll("[data-for]")) {
    const name = CSS.escape(part.dataset.for);
    const field = root.querySelector(`[name="${name}"]:checked`) || root.querySelector(`select[name="${name}"]`);
    part.hidden = field !== null && !part.dataset.value.split(" ").includes(field.value);
  }
}

/** One step more or less in a field with a stepper's buttons beside it. */
function stepField(button) {
  const field = button.closest(".stepper").querySelector("input");
  const value = Number.parseInt(field.value, 10) || 0;
  const next = value + Number(button.dataset.by);
  field.value = String(Math.min(Math.max(next, Number(field.dataset.min)), Number(field.dataset.max)));
  field.dispatchEvent(new Event("change", { bubbles: true }));
}

/** Puts values into fields of the page's looked-at form, as if they had been typed. */
function fillFields(fields) {
  const form = document.querySelector("form.looked");
  for (const [name, value] of new URLSearchParams(fields)) {
    const field = form.querySelector(`[name="${CSS.escape(name)}"]`);
    if (field) {
      field.value = value;
      field.dispatchEvent(new Event("change", { bubbles: true }));
    }
  }
}

document.addEventListener("click", (event) => {
  const button = event.target.closest("button[data-by], button[data-fill]");
  if (button && button.dataset.by) {
    stepField(button);
  } else if (button) {
    fillFields(button.dataset.fill);
  }
});

document.addEventListener("alpine:init", () => {
  // Without script every part is there.
  window.Alpine.data("reveal", () => ({
    init() {
      this.changed();
    },

    changed() {
      showParts(this.$root);
    },
  }));

  // The server looks at the form while it is filled in, and says what it finds.
  window.Alpine.data("lookedAt", () => ({
    question: null,
    timer: 0,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      showParts(this.$root);
    },

    changed() {
      showParts(this.$root);
      window.clearTimeout(this.timer);
      this.timer = window.setTimeout(() => {
        this.question.ask(fieldsOf(this.$root.querySelector("form.looked")), swapById);
      }, 150);
    },
  }));
});
