// The page that a device is paired at: it takes the code out of its address and says the device's name.
"use strict";
const code = location.hash.slice(1);
const form = document.getElementById("form");
const name = document.getElementById("name");
const wrong = document.getElementById("wrong");
const button = form.querySelector("button");
// The code is nobody's business any more: neither the history's nor a neighbour's.
history.replaceState(null, "", location.pathname);

const tell = (text) => {
  wrong.textContent = text;
  wrong.hidden = false;
};

if (code) {
  document.getElementById("how").hidden = true;
  form.hidden = false;
  name.focus();
}

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  wrong.hidden = true;
  button.disabled = true;
  try {
    const answer = await fetch("/api/pair", {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ code, name: name.value }),
    });
    if (answer.ok) {
      location.replace("/");
      return;
    }
    const faults = await answer.json().catch(() => []);
    const fault = Array.isArray(faults) ? faults[0] : undefined;
    const about = { code: "The code ", name: "The name " }[fault?.path] ?? "";
    tell(fault ? `${about}${fault.message}.` : "The desk does not answer as it should. Try again.");
  } catch {
    tell("The desk does not answer. Is this device on the same network?");
  }
  button.disabled = false;
});
