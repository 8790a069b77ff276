// The Year: a month's handle is dragged or moved by keys; the server works out what it would give.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("yearPlate", () => ({
    ...inHand,
    handle: ".slider",
    within: ".yearplate, #live-side",
    pieces: ["live-year", "live-side"],

    init() {
      inHand.init.call(this);
      document.addEventListener("keydown", (event) => this.through(event));
    },

    slider(month) {
      return document.getElementById(`slider-${month}`);
    },

    named(slider) {
      return { month: slider.dataset.month };
    },

    isHeld(slider) {
      return slider.dataset.month === this.held.month;
    },

    shown(slider) {
      return Number(slider.getAttribute("aria-valuenow"));
    },

    current() {
      return this.slider(this.held.month);
    },

    /** The percent at a height: the bar's end comes to the pointer, wherever its handle was taken. */
    valueAt(event) {
      const plate = this.$root.querySelector(".yearplate");
      const { zero, pixels } = plate.dataset;
      return Math.max(0, (Number(zero) - onDrawing(plate, event).y) / Number(pixels));
    },

    grip() {
      return 0;
    },

    page(step) {
      return 5 * step;
    },

    fields() {
      const form = document.getElementById("month-form");
      const fields = fieldsOf(form, { month: this.held.month, percent: String(this.value) });
      fields.delete("waterings");
      return fields;
    },

    toKeep() {
      const fields = this.fields();
      fields.set("do", "drag");
      // The form has a field of the name `action`, which hides the form's own.
      return [document.getElementById("month-form").getAttribute("action"), fields];
    },

    /** A press without a move opens the month. */
    pressed() {
      this.$root.querySelector(`.yeartab .big td:nth-of-type(${this.held.month}) a`).click();
    },

    /** J and K go through the months when nothing is being typed. */
    through(event) {
      if (event.target.closest("input, select, textarea") || event.ctrlKey || event.metaKey) {
        return;
      }
      const step = { j: 1, k: -1 }[event.key];
      if (step) {
        const at = Number(document.activeElement.dataset.month || 0);
        this.slider(Math.min(Math.max(at + step, 1), 12))?.focus();
      }
    },
  }));
});
