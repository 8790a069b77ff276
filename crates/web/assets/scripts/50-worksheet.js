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
        this.choose(row);
      }
    },

    choose(row) {
      this.open = row.dataset.station;
      for (const other of document.querySelectorAll("tr.sel")) {
        other.classList.remove("sel");
      }
      row.classList.add("sel");
      this.ask();
    },

    /** The station before or after, on a screen that shows one at a time. */
    step(by) {
      const rows = [...document.querySelectorAll("#sheet tr[data-station]")];
      const at = rows.findIndex((row) => row.dataset.station === this.open) + by;
      if (rows[at]) {
        this.choose(rows[at]);
      }
    },

    changed(event) {
      if (!event.target.closest("#sheet")) {
        return;
      }
      for (const kcell of document.querySelectorAll("[data-coefficient]")) {
        const plant = document.getElementsByName(kcell.dataset.coefficient)[0];
        kcell.hidden = plant.value !== "coefficient";
      }
      for (const row of document.querySelectorAll("#sheet tr[data-station]")) {
        row.classList.toggle("spare", row.querySelector("input").value.trim() === "");
      }
      window.clearTimeout(this.timer);
      this.timer = window.setTimeout(() => this.ask(), 120);
    },

    /** The cells of a row, in their order, with their fields' names. */
    cellsOf(row) {
      return [...row.querySelectorAll("td.en input, td.en select")];
    },

    /** Cells of the shown part alone: what cannot be seen is not filled by a paste. */
    shownCellsOf(row) {
      return this.cellsOf(row).filter((cell) => cell.offsetParent !== null);
    },

    rowsFrom(row) {
      const rows = [...document.querySelectorAll("#sheet tr[data-station]")];
      return rows.slice(rows.indexOf(row));
    },

    fieldOf(cell) {
      return cell.name.replace(/^s\d+_/, "");
    },

    /** Puts a text into a cell: of a choice, the one of that name or word. Says whether it could. */
    put(cell, text) {
      const typed = text.trim();
      if (cell.tagName !== "SELECT") {
        cell.value = typed;
        return true;
      }
      const plain = (words) => words.toLowerCase().replaceAll(/[\s_-]+/g, " ").trim();
      const found = [...cell.options].find(
        (option) => plain(option.value) === plain(typed) || plain(option.text) === plain(typed),
      );
      if (found) {
        cell.value = found.value;
      }
      return Boolean(found);
    },

    /** A block from a spreadsheet goes in from the cell on, to the right and down. */
    pasted(event) {
      const cell = event.target.closest("td.en input, td.en select");
      const text = event.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
      if (!cell || !/[\t\n]/.test(text)) {
        return;
      }
      event.preventDefault();
      const lines = text.split(/\r?\n/).map((line) => line.split("\t"));
      const first = cell.closest("tr[data-station]");
      const at = this.shownCellsOf(first).indexOf(cell);
      let refused = 0;
      this.rowsFrom(first).forEach((row, n) => {
        const cells = this.shownCellsOf(row).slice(at);
        (lines[n] || []).forEach((value, column) => {
          if (cells[column] && !this.put(cells[column], value)) {
            refused += 1;
          }
        });
      });
      this.filled(event.target, refused);
    },

    /** Keys of a cell: the one above it again, or its value in all used rows below. */
    keyed(event) {
      const cell = event.target.closest("td.en input, td.en select");
      if (!cell || !event.altKey || event.ctrlKey || event.metaKey) {
        return;
      }
      const row = cell.closest("tr[data-station]");
      const same = (other) => this.cellsOf(other).find((c) => this.fieldOf(c) === this.fieldOf(cell));
      if (event.key === "ArrowDown") {
        event.preventDefault();
        for (const other of this.rowsFrom(row).slice(1)) {
          if (!other.classList.contains("spare")) {
            same(other).value = cell.value;
          }
        }
        this.filled(cell, 0);
      } else if (event.key === "ArrowUp") {
        const above = row.previousElementSibling?.previousElementSibling;
        if (above) {
          event.preventDefault();
          cell.value = same(above).value;
          this.filled(cell, 0);
        }
      }
    },

    /** The whole of another station, without its name and what was measured there. */
    copied(event) {
      const from = document.querySelector(`#sheet tr[data-station="${CSS.escape(event.target.value)}"]`);
      const to = document.querySelector(`#sheet tr[data-station="${CSS.escape(this.open)}"]`);
      event.target.value = "";
      if (!from || !to || from === to) {
        return;
      }
      const own = new Set(["name", "area_m2", "rate_mm_h", "uniformity"]);
      for (const cell of this.cellsOf(to)) {
        const field = this.fieldOf(cell);
        const source = this.cellsOf(from).find((c) => this.fieldOf(c) === field);
        if (!own.has(field) && source) {
          cell.value = source.value;
        }
      }
      this.filled(to.querySelector("input"), 0);
    },

    /** After cells were filled: how many values were refused; the rest follows as if one had been typed. */
    filled(target, refused) {
      const note = document.getElementById("paste-note");
      note.textContent = refused > 0 ? note.dataset.refused.replace("#", String(refused)) : "";
      target.dispatchEvent(new Event("input", { bubbles: true }));
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
