// A weather file is sent with its progress shown, and can be called off; too large a file is not sent at all.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("upload", () => ({
    message: "",
    said: "",
    request: null,

    send(event) {
      const form = this.$root;
      const file = form.elements.file.files[0];
      this.message = "";
      if (!file) {
        return;
      }
      event.preventDefault();
      if (file.size > Number(form.dataset.most)) {
        this.message = form.dataset.tooLarge;
        return;
      }
      this.said = form.dataset.sending;
      this.$refs.bar.value = 0;
      this.request = new XMLHttpRequest();
      this.request.open("POST", form.action);
      this.request.setRequestHeader("prefer", "return=minimal");
      this.request.upload.addEventListener("progress", (sent) => this.progress(sent));
      this.request.addEventListener("load", () => this.answered());
      this.request.addEventListener("error", () => this.end(form.dataset.failed));
      this.request.send(new FormData(form));
    },

    progress(sent) {
      if (sent.loaded < sent.total) {
        this.$refs.bar.value = (100 * sent.loaded) / sent.total;
      } else {
        // How long the server reads nobody knows: a bar without a value moves to and fro.
        this.said = this.$root.dataset.reading;
        this.$refs.bar.removeAttribute("value");
      }
    },

    /** Without another question the server told where the preview is; an error stands in the page that it answered. */
    answered() {
      const { request } = this;
      if (request.status === 201) {
        window.location.assign(request.getResponseHeader("location"));
        return;
      }
      const page = new DOMParser().parseFromString(request.responseText, "text/html");
      const error = page.getElementById("file-error");
      if (error) {
        this.end(error.textContent.trim());
      } else {
        // Signed out, or worse: the server says it on a page of its own.
        this.request = null;
        this.$root.submit();
      }
    },

    cancel() {
      this.request.abort();
      this.end("");
    },

    end(message) {
      this.request = null;
      this.message = message;
    },
  }));

  // A column or a unit that was chosen by hand shows at once what follows from it.
  window.Alpine.data("mapping", () => ({
    isImporting: false,

    init() {
      // A page that is come back to has nothing under way.
      window.addEventListener("pageshow", () => {
        this.isImporting = false;
      });
    },

    preview(event) {
      if (event.target.tagName === "SELECT") {
        this.$root.requestSubmit(this.$refs.look);
      }
    },

    submitted(event) {
      this.isImporting = event.submitter === this.$refs.take;
    },
  }));
});
