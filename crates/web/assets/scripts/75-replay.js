// Replay: a setting is tried by slider, number and key, and the season is drawn anew by the server.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("replay", () => ({
    question: null,
    timer: 0,
    at: -1,

    init() {
      this.question = new LiveQuestion(this.$root.dataset.preview);
      // The plate is drawn anew while something is tried, so its events are taken above it.
      this.$root.addEventListener("pointermove", (event) => this.point(event));
      this.$root.addEventListener("pointerleave", () => this.hide());
      this.$root.addEventListener("keydown", (event) => this.key(event));
    },

    /** A slider and its number show the same; then the server is asked. */
    tried(event) {
      const field = event.target;
      if (!field.closest("#whatif")) {
        return;
      }
      const other = field.dataset.of
        ? document.getElementById(field.dataset.of)
        : document.querySelector(`[data-of="${CSS.escape(field.id)}"]`);
      if (other) {
        other.value = field.value;
      }
      window.clearTimeout(this.timer);
      this.timer = window.setTimeout(() => this.ask(), 30);
    },

    ask() {
      const form = document.getElementById("whatif");
      const token = document.querySelector("input[name=token]").value;
      this.question.ask(fieldsOf(form, { token }), (html) => {
        swapById(html);
        this.draw();
      });
    },

    season() {
      return this.$root.querySelector(".seasonw");
    },

    point(event) {
      const season = event.target.closest(".seasonw");
      if (!season) {
        return;
      }
      const plate = season.querySelector("svg");
      const box = plate.getBoundingClientRect();
      const x = ((event.clientX - box.left) / box.width) * plate.viewBox.baseVal.width;
      const days = season.dataset.tried.split(",").length;
      const share = (x - Number(season.dataset.left)) / (Number(season.dataset.right) - Number(season.dataset.left));
      this.at = share < 0 || share > 1 ? -1 : Math.min(days - 1, Math.floor(share * days));
      this.draw();
    },

    hide() {
      this.at = -1;
      this.draw();
    },

    key(event) {
      const season = event.target.closest(".seasonw");
      const steps = { ArrowLeft: -1, ArrowRight: 1 };
      if (!season || !(event.key in steps)) {
        return;
      }
      event.preventDefault();
      const days = season.dataset.tried.split(",").length;
      const step = steps[event.key] * (event.shiftKey ? 7 : 1);
      this.at = Math.min(days - 1, Math.max(0, this.at < 0 ? 0 : this.at + step));
      this.draw();
    },

    /** The reading line: a day, and what is left on it. */
    draw() {
      const season = this.season();
      const reading = season && season.querySelector(".reading");
      if (!reading) {
        return;
      }
      if (this.at < 0) {
        reading.setAttribute("hidden", "");
        return;
      }
      reading.removeAttribute("hidden");
      const { first, left, right, tried, present, words } = season.dataset;
      const [ours, theirs] = [tried.split(","), present.split(",")];
      const day = new Date(`${first}T12:00:00Z`);
      day.setUTCDate(day.getUTCDate() + this.at);
      const date = day.toLocaleDateString("en-GB", {
        weekday: "short",
        day: "numeric",
        month: "short",
        year: "numeric",
        timeZone: "UTC",
      });
      const text = words
        .replace("@date", date)
        .replace("@left", ours[this.at])
        .replace("@present", theirs[this.at]);
      const x = Number(left) + ((Number(right) - Number(left)) * (this.at + 0.5)) / ours.length;
      const line = reading.querySelector("line");
      line.setAttribute("x1", String(x));
      line.setAttribute("x2", String(x));
      const label = reading.querySelector("text");
      label.textContent = text;
      const width = label.getComputedTextLength() + 14;
      const start = Math.max(0, Math.min(x - 1, Number(right) - width));
      label.setAttribute("x", String(start + 7));
      const box = reading.querySelector("rect");
      box.setAttribute("x", String(start));
      box.setAttribute("width", String(width));
      season.setAttribute("aria-description", text);
    },
  }));
});
