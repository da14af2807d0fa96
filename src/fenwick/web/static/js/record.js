/* Recording in the page, where the browser allows it: five seconds a time, put with the files that are sent. */
(() => {
  const SECONDS = 5,
    KINDS = ["audio/webm", "audio/ogg", "audio/mp4"];

  function kind() {
    return KINDS.find((one) => window.MediaRecorder.isTypeSupported(one)) || "";
  }

  function offer() {
    document.querySelectorAll("[data-record]").forEach((place) => {
      const can = window.MediaRecorder && window.DataTransfer && navigator.mediaDevices?.getUserMedia;
      place.hidden = !can || !window.isSecureContext;
    });
  }

  function put(place, blob) {
    const input = document.getElementById(place.dataset.record),
      files = new DataTransfer(),
      end = blob.type.includes("mp4") ? "m4a" : blob.type.includes("ogg") ? "ogg" : "webm";
    Array.from(input.files).forEach((file) => {
      files.items.add(file);
    });
    files.items.add(new File([blob], `recording-${input.files.length + 1}.${end}`, { type: blob.type }));
    input.files = files.files;
    return input.files.length;
  }

  async function record(place) {
    const says = place.querySelector("[data-record-says]"),
      button = place.querySelector("[data-record-go]");
    button.disabled = true;
    try {
      /* as it is: what cleans voices would take the motor away */
      const clean = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
      const stream = await navigator.mediaDevices.getUserMedia({ audio: clean });
      const recorder = new MediaRecorder(stream, kind() ? { mimeType: kind() } : {}),
        parts = [];
      recorder.ondataavailable = (event) => {
        parts.push(event.data);
      };
      recorder.onstop = () => {
        stream.getTracks().forEach((track) => {
          track.stop();
        });
        const count = put(place, new Blob(parts, { type: recorder.mimeType }));
        says.textContent = count === 1 ? "One recording is with the files." : `${count} recordings are with the files.`;
        button.disabled = false;
      };
      recorder.start();
      for (let left = SECONDS; left > 0; left--) {
        says.textContent = `recording, ${left} s`;
        await new Promise((done) => {
          setTimeout(done, 1000);
        });
      }
      recorder.stop();
    } catch {
      says.textContent = "The browser does not let this page listen: record with the telephone, and choose the file.";
      button.disabled = false;
    }
  }

  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-record-go]");
    if (button) record(button.closest("[data-record]"));
  });
  document.addEventListener("DOMContentLoaded", offer);
})();
