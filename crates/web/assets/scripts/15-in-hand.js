// Something on a drawing that is taken in hand: a month of the Year, a start of the Week. It is dragged or moved by keys,
// and the server works out what it would give; Enter or letting go keeps it, Escape or leaving it puts it back.
"use strict";

/**
 * What the two drawings share. A drawing says
 * - `handle`, `within`: selectors of what can be taken, and of where the focus may go while it is;
 * - `pieces`: ids of what an answer draws anew;
 * - `named(handle)`: what is taken, by its names in the form; `isHeld(handle)`: whether that is this one; `shown(handle)`:
 *   the value it stands at;
 * - `current()`: the handle in hand as it is drawn now;
 * - `valueAt(event)`: the value under the pointer, and `grip(value)`: how far from it something is held;
 * - `page()`: the step of Page Up; `fields()`: what the server is asked; `toKeep()`: where and what is saved;
 * - `pressed()`: what a press without a move does.
 */
const inHand = {
  question: null,
  held: null,
  value: 0,
  offset: 0,
  before: "",
  isDragging: false,
  hasMoved: false,

  init() {
    this.question = new LiveQuestion(this.$root.dataset.preview);
    // The plate is drawn anew while something is in hand, so its events are taken above it.
    this.$root.addEventListener("pointerdown", (event) => this.grab(event));
    this.$root.addEventListener("keydown", (event) => this.key(event));
    this.$root.addEventListener("focusout", (event) => this.left(event));
    window.addEventListener("keydown", (event) => this.escape(event));
    window.addEventListener("pointermove", (event) => this.drag(event));
    window.addEventListener("pointerup", () => this.drop());
    window.addEventListener("pointercancel", () => this.cancel());
  },

  take(handle) {
    if (this.held && !this.isHeld(handle)) {
      this.cancel();
    }
    if (!this.held) {
      this.before = this.pieces.map((id) => document.getElementById(id).outerHTML).join("");
      this.held = this.named(handle);
      this.value = this.shown(handle);
    }
  },

  grab(event) {
    const handle = event.target.closest(this.handle);
    if (!handle || event.button !== 0) {
      return;
    }
    event.preventDefault();
    this.take(handle);
    this.offset = this.grip(this.valueAt(event));
    this.isDragging = true;
    this.focus();
  },

  drag(event) {
    if (this.isDragging) {
      event.preventDefault();
      this.hasMoved = true;
      this.value = this.valueAt(event) - this.offset;
      this.ask();
    }
  },

  drop() {
    if (!this.isDragging) {
      return;
    }
    this.isDragging = false;
    if (this.hasMoved) {
      this.hasMoved = false;
      this.keep();
    } else {
      this.pressed();
      this.cancel();
    }
  },

  key(event) {
    const handle = event.target.closest(this.handle);
    if (!handle) {
      return;
    }
    // The controller's step, as the server says it.
    const step = Number(this.$root.dataset.step);
    const moves = {
      ArrowUp: step,
      ArrowRight: step,
      ArrowDown: -step,
      ArrowLeft: -step,
      PageUp: this.page(step),
      PageDown: -this.page(step),
      Home: -Infinity,
      End: Infinity,
    };
    if (event.key in moves) {
      event.preventDefault();
      this.take(handle);
      const [least, most] = [handle.getAttribute("aria-valuemin"), handle.getAttribute("aria-valuemax")].map(Number);
      this.value = Math.min(most, Math.max(least, this.value + moves[event.key]));
      this.ask();
    } else if (event.key === "Enter" && this.held) {
      event.preventDefault();
      this.keep();
    }
  },

  escape(event) {
    if (event.key === "Escape" && this.held) {
      event.preventDefault();
      this.cancel();
    }
  },

  ask() {
    this.question.ask(this.fields(), (html) => {
      swapById(html);
      this.focus();
    });
  },

  focus() {
    this.current()?.focus({ preventScroll: true });
  },

  /** Saves what is in hand as a plain form would. */
  keep() {
    this.question.forget();
    const [action, fields] = this.toKeep();
    this.held = null;
    submitFields(action, fields);
  },

  /** Puts what is in hand back as it is saved. */
  cancel() {
    this.isDragging = false;
    this.hasMoved = false;
    if (this.held) {
      this.question.forget();
      swapById(this.before);
      this.focus();
      this.held = null;
    }
  },

  /** What is in hand and left without Enter goes back. */
  left(event) {
    const goesTo = event.relatedTarget;
    if (this.held && !this.isDragging && goesTo && !goesTo.closest(this.within)) {
      this.cancel();
      goesTo.focus();
    }
  },
};

/** A place on the screen by a drawing's own scale. */
function onDrawing(plate, event) {
  const box = plate.getBoundingClientRect();
  const { width, height } = plate.viewBox.baseVal;
  return {
    x: ((event.clientX - box.left) / box.width) * width,
    y: ((event.clientY - box.top) / box.height) * height,
  };
}

/** Sends fields as a form of the page would, and goes where the answer leads. */
function submitFields(action, fields) {
  const form = document.createElement("form");
  form.method = "post";
  form.action = action;
  for (const [name, value] of fields) {
    const field = document.createElement("input");
    field.type = "hidden";
    field.name = name;
    field.value = value;
    form.append(field);
  }
  document.body.append(form);
  form.submit();
}
