// The position of this device, for the form of a place.
"use strict";

document.addEventListener("alpine:init", () => {
  window.Alpine.data("locate", () => ({
    message: "",

    find() {
      const form = this.$root;
      const none = form.dataset.none;
      const failed = form.dataset.failed;
      if (!navigator.geolocation) {
        this.message = none;
        return;
      }
      navigator.geolocation.getCurrentPosition(
        (found) => {
          const { latitude, longitude, altitude } = found.coords;
          form.elements.latitude.value = latitude.toFixed(5);
          form.elements.longitude.value = longitude.toFixed(5);
          // The height comes in metres; a field in feet is left to be typed.
          if (
            altitude !== null &&
            form.elements.elevation.value === "" &&
            form.elements.units.value === "metric"
          ) {
            form.elements.elevation.value = altitude.toFixed(0);
          }
          if (form.elements.time_zone.value === "") {
            form.elements.time_zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
          }
          this.message = "";
        },
        () => {
          this.message = failed;
        },
        { enableHighAccuracy: true, timeout: 10000 },
      );
    },
  }));
});
