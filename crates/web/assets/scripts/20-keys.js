// The keyboard: ? lists the keys, g and a letter goes to a view, Ctrl or Cmd and Z undoes.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("keys", () => ({
    afterG: false,

    init() {
      document.addEventListener("keydown", (event) => this.pressed(event));
      // On a phone the views and the steps scroll sideways: the current one is brought into sight, a step with its
      // neighbours, a view no farther than it takes, so that Undo stays.
      for (const [row, inline] of [[".views", "nearest"], [".spine", "center"]]) {
        document.querySelector(`${row} [aria-current]`)?.scrollIntoView({ block: "nearest", inline });
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
