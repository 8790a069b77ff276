// A file that is too large is refused before it is sent.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("upload", () => ({
    message: "",

    check(event) {
      const form = this.$root;
      const file = form.elements.file.files[0];
      this.message = "";
      if (file && file.size > Number(form.dataset.most)) {
        event.preventDefault();
        this.message = form.dataset.tooLarge;
      }
    },
  }));

  // A column or a unit that was chosen by hand shows at once what follows from it.
  window.Alpine.data("mapping", () => ({
    preview(event) {
      if (event.target.tagName === "SELECT") {
        this.$root.requestSubmit(this.$refs.look);
      }
    },
  }));
});
