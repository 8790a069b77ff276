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
        this.slider(Math.min(Math.max(at + step, 1), 12))?.focus();
      }
    },
  }));
});
