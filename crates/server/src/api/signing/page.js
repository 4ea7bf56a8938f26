// The page that a client agrees at: it takes the secret out of its address, shows what the link opens, and sends the signature.
"use strict";
const at = (id) => document.getElementById(id);
const secret = location.hash.slice(1);
const field = at("field");
let strokes = [];
let down = false;
let busy = false;

const tell = (text) => {
  at("says").textContent = text;
  at("says").hidden = false;
};

// What is asked, and in words what came of it; null when it went well, with the answer given on.
const ask = async (path, body, then) => {
  try {
    const answer = await fetch(path, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ secret, ...body }),
    });
    if (answer.ok) {
      await then(answer);
      return;
    }
    const faults = await answer.json().catch(() => []);
    const said = Array.isArray(faults) && faults[0] ? String(faults[0].message) : "the desk does not answer as it should";
    tell(`${said.charAt(0).toUpperCase()}${said.slice(1)}.`);
  } catch {
    tell("The desk does not answer. Is this device on the same network?");
  }
};

const line = (text) => {
  const item = document.createElement("li");
  item.dir = "auto";
  item.textContent = text;
  return item;
};

const view = ({ name, what_for, picture }) => {
  const figure = document.createElement("figure");
  const image = document.createElement("img");
  const caption = document.createElement("figcaption");
  image.src = picture;
  image.alt = `What ${name} will see`;
  caption.dir = "auto";
  caption.textContent = `${name}: ${what_for}`;
  figure.append(image, caption);
  return figure;
};

const draw = () => {
  field.replaceChildren();
  for (const stroke of strokes) {
    const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
    const way = stroke.map(([x, y], place) => `${place ? "L" : "M"}${x * 300} ${y * 100}`).join("");
    path.setAttribute("d", way + (stroke.length === 1 ? "h0.1" : ""));
    field.append(path);
  }
  at("agree").disabled = busy || strokes.length === 0 || at("name").value.trim() === "";
};

const point = (event) => {
  const box = field.getBoundingClientRect();
  const part = (value) => Math.min(1, Math.max(0, Math.round(value * 1e4) / 1e4));
  return [part((event.clientX - box.left) / box.width), part((event.clientY - box.top) / box.height)];
};

field.addEventListener("pointerdown", (event) => {
  field.setPointerCapture(event.pointerId);
  down = true;
  strokes.push([point(event)]);
  draw();
});
field.addEventListener("pointermove", (event) => {
  if (!down) return;
  strokes[strokes.length - 1].push(point(event));
  draw();
});
for (const ended of ["pointerup", "pointercancel"]) field.addEventListener(ended, () => (down = false));
at("name").addEventListener("input", draw);
at("again").addEventListener("click", () => {
  strokes = [];
  draw();
});

at("form").addEventListener("submit", async (event) => {
  event.preventDefault();
  if (at("agree").disabled) return;
  busy = true;
  draw();
  await ask("/api/sign", { name: at("name").value.trim(), signature: strokes }, () => {
    at("form").hidden = true;
    tell("Agreed. Thank you; the desk has it.");
  });
  busy = false;
  draw();
});

if (secret) {
  ask("/api/sign/look", {}, async (answer) => {
    const { sheet, ends_at, signed_name } = await answer.json();
    document.title = `${sheet.site}: to agree`;
    at("site").textContent = sheet.site;
    at("site").dir = "auto";
    at("heading").textContent = `${sheet.heading}${sheet.heading ? " · " : ""}this link opens until ${ends_at.slice(0, 10)}`;
    at("conditions").textContent = `What was promised, ${sheet.conditions}`;
    at("promises").append(...sheet.promises.map(line));
    at("views").append(...sheet.views.map(view));
    at("does_not").append(...sheet.does_not.map(line));
    at("privacy").append(...sheet.privacy.map(line));
    at("costs").textContent = sheet.costs;
    at("sheet").hidden = false;
    if (signed_name === null) at("form").hidden = false;
    else tell(`This was signed, by ${signed_name}.`);
  });
} else tell("This is no link to agree by: its address is not whole.");
