// The Week: a start is dragged or moved by keys; the server works out what it would run.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("weekPlate", () => ({
    ...inHand,
    handle: ".starth",
    within: ".weekplate, #live-side",
    pieces: ["live-week", "live-side"],

    named(handle) {
      return { program: handle.dataset.program, from: handle.dataset.start };
    },

    isHeld(handle) {
      const { program, from } = this.held;
      return handle.matches(".in-hand") || (handle.dataset.program === program && handle.dataset.start === from);
    },

    shown(handle) {
      return Number(handle.dataset.minutes);
    },

    /** A start stands on every day that it waters; the first of them takes keys. */
    current() {
      const { program, from } = this.held;
      return (
        this.$root.querySelector(".starth.in-hand[role=slider]") ||
        this.$root.querySelector(`.starth[role=slider][data-program="${program}"][data-start="${from}"]`)
      );
    },

    /** Minutes of the day under the pointer. */
    valueAt(event) {
      const plate = this.$root.querySelector(".weekplate");
      const { left, hour } = plate.dataset;
      return ((onDrawing(plate, event).x - Number(left)) / Number(hour)) * 60;
    },

    /** A start keeps its distance from the pointer. */
    grip(minutes) {
      return minutes - this.value;
    },

    page() {
      return 60;
    },

    fields() {
      const { token, version, action } = document.querySelector("#program form").elements;
      return new URLSearchParams({
        token: token.value,
        version: version.value,
        action: action.value,
        do: "move",
        ...this.held,
        to: String(this.value),
      });
    },

    toKeep() {
      return [this.$root.dataset.preview.replace(/preview$/, "change"), this.fields()];
    },

    pressed() {},
  }));
});
