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
