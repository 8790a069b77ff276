// The worksheet of stations: figures follow while it is typed in, worked out by the server.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("worksheet", () => ({
    question: null,
    open: "",
    timer: 0,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      this.open = this.$root.dataset.open;
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
      if (!event.target.closest("#sheet")) {
        return;
      }
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
