// Forms: parts that belong to a choice show with it; a form that is previewed while it is filled in.
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
