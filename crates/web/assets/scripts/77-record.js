// A weather record: keys step and zoom, and the edges of the frame are dragged; the server draws.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("record", () => ({
    drag: null,
    asked: 0,

    init() {
      this.newest();
      this.$root.addEventListener("keydown", (event) => this.key(event));
      this.$root.addEventListener("click", (event) => this.follow(event));
      this.$root.addEventListener("pointerdown", (event) => this.take(event));
      this.$root.addEventListener("pointermove", (event) => this.move(event));
      this.$root.addEventListener("pointerup", () => this.drop());
      this.$root.addEventListener("pointercancel", () => this.cancel());
    },

    /** Where there is no room for the whole chart its newest days are in sight. */
    newest() {
      const chart = this.$root.querySelector(".recordw");
      if (chart) {
        chart.scrollLeft = chart.scrollWidth;
      }
    },

    key(event) {
      const chart = event.target.closest(".recordw");
      if (event.key === "Escape" && this.drag) {
        this.cancel();
        return;
      }
      const steps = { ArrowLeft: "earlier", ArrowRight: "later", "+": "closer", "=": "closer", "-": "wider" };
      const address = chart && chart.dataset[steps[event.key]];
      if (address) {
        event.preventDefault();
        this.show(address);
      }
    },

    /** A period's link is followed in place, so that the page stays where it was scrolled to. */
    follow(event) {
      const link = event.target.closest("#live-chart a[href]");
      if (link && !event.ctrlKey && !event.metaKey && !event.shiftKey && event.button === 0) {
        event.preventDefault();
        this.show(link.getAttribute("href"));
      }
    },

    show(address) {
      const number = ++this.asked;
      fetchText(address)
        .then((html) => {
          // A key that is held down asks faster than the server draws: the newest answer is shown.
          if (number !== this.asked) {
            return;
          }
          const hadFocus = Boolean(document.activeElement.closest(".recordw"));
          swapById(html);
          this.newest();
          window.history.replaceState(null, "", address);
          if (hadFocus) {
            this.$root.querySelector(".recordw").focus({ preventScroll: true });
          }
          liveState("");
        })
        .catch((error) => liveState(error.message === "signedOut" ? "signedOut" : "failed"));
    },

    take(event) {
      const grip = event.target.closest(".rec-grip");
      const brush = event.target.closest(".brush");
      if (!brush) {
        return;
      }
      const frame = brush.querySelector(".rec-frame");
      const from = Number(frame.getAttribute("x"));
      const ends = { from, to: from + Number(frame.getAttribute("width")) };
      const x = this.x(brush, event);
      // Beside a handle the whole frame is moved; outside it, it comes to the pointer.
      const edge = grip ? grip.dataset.edge : "both";
      const inside = x >= ends.from && x <= ends.to;
      const middle = (ends.from + ends.to) / 2;
      this.drag = { brush, edge, ends, was: { ...ends }, at: edge === "both" && !inside ? middle : x };
      event.preventDefault();
      brush.setPointerCapture(event.pointerId);
      this.move(event);
    },

    x(brush, event) {
      const box = brush.getBoundingClientRect();
      return ((event.clientX - box.left) / box.width) * brush.viewBox.baseVal.width;
    },

    move(event) {
      if (!this.drag) {
        return;
      }
      const { brush, edge, was, ends, at } = this.drag;
      const [left, right] = [Number(brush.dataset.left), Number(brush.dataset.right)];
      const by = this.x(brush, event) - at;
      if (edge === "both") {
        const shift = Math.min(right - was.to, Math.max(left - was.from, by));
        ends.from = was.from + shift;
        ends.to = was.to + shift;
      } else if (edge === "from") {
        ends.from = Math.min(was.to - 3, Math.max(left, was.from + by));
      } else {
        ends.to = Math.max(was.from + 3, Math.min(right, was.to + by));
      }
      this.frame(brush, ends);
    },

    frame(brush, ends) {
      const frame = brush.querySelector(".rec-frame");
      frame.setAttribute("x", String(ends.from));
      frame.setAttribute("width", String(ends.to - ends.from));
      for (const grip of brush.querySelectorAll(".rec-grip")) {
        const x = String(ends[grip.dataset.edge]);
        grip.setAttribute("x1", x);
        grip.setAttribute("x2", x);
      }
    },

    drop() {
      if (!this.drag) {
        return;
      }
      const { brush, ends } = this.drag;
      this.drag = null;
      const { first, days, left, right, base } = brush.dataset;
      const day = (x) => {
        const share = (x - Number(left)) / (Number(right) - Number(left));
        const date = new Date(`${first}T12:00:00Z`);
        date.setUTCDate(date.getUTCDate() + Math.round(share * Number(days)));
        return date;
      };
      const to = day(ends.to);
      // The frame ends where its last day ends.
      to.setUTCDate(to.getUTCDate() - 1);
      const text = (date) => date.toISOString().slice(0, 10);
      this.show(`${base}?from=${text(day(ends.from))}&to=${text(to)}`);
    },

    cancel() {
      if (this.drag) {
        this.frame(this.drag.brush, this.drag.was);
        this.drag = null;
      }
    },
  }));

  window.Alpine.data("sendOnChange", () => ({
    init() {
      this.$root.addEventListener("change", () => this.$root.requestSubmit());
    },
  }));
});
