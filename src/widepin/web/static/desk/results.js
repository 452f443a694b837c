// Results entered by hand: what a kind of result needs, and photos of works on paper, made small before they are sent.

import { _ } from "../look/language.js";
import { find, findAll, post } from "../look/page.js";

const LONGEST_SIDE = 1600; // pixels: enough to read a construction by
const QUALITY = 0.8;

const said = find("[data-said]");
const form = find("#entered");
let changed = false;

/** @param {any} row */
function show(row) {
  const kind = find("[data-kind]", row).value;
  find("[data-score]", row).hidden = kind !== "paper";
  find(".note", row).hidden = kind === "";
}

for (const row of findAll("fieldset", form)) {
  show(row);
  find("[data-kind]", row).addEventListener("change", () => show(row));
  const photo = find(".photo", row);
  find("input[type=file]", row).addEventListener("change", (/** @type {{target: any}} */ { target }) => {
    if (target.files[0]) keep(row, photo.dataset.photo, target);
  });
  find("[data-remove]", row)?.addEventListener("click", () => {
    if (confirm(_("Remove the photo? It cannot be brought back."))) remove(row, photo.dataset.photo);
  });
}
form.addEventListener("input", () => {
  changed = true;
});
form.addEventListener("submit", () => {
  changed = false;
});
addEventListener("beforeunload", (event) => {
  if (changed) event.preventDefault();
});

/** @param {File} file */
async function smaller(file) {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) => canvas.toBlob(resolve, "image/jpeg", QUALITY));
}

/** @param {string} url @param {any} body */
async function send(url, body) {
  try {
    return await (await post(url, body)).json();
  } catch {
    return { error: _("There is no connection. Nothing is lost; try again.") };
  }
}

/** @param {any} row @param {string} url @param {any} field */
async function keep(row, url, field) {
  said.textContent = _("Sending the photo …");
  const body = new FormData();
  try {
    body.append("photo", await smaller(field.files[0]), "photo.jpg");
  } catch {
    said.textContent = _("This is no photo: choose a JPEG or PNG file.");
    return;
  }
  const answer = await send(url, body);
  field.value = "";
  if (answer.error) {
    said.textContent = answer.error;
    return;
  }
  said.textContent = _("The photo is kept.");
  const photo = find(".photo", row);
  const image = find("img", photo) ?? document.createElement("img");
  image.src = `${answer.url}?${Date.now()}`;
  image.alt = _("The photo that was just taken");
  if (!image.isConnected) photo.prepend(image);
  const kind = find("[data-kind]", row);
  if (!kind.value) kind.value = "paper";
  show(row);
  find("[data-score]", row).focus();
}

/** @param {any} row @param {string} url */
async function remove(row, url) {
  const body = new FormData();
  body.append("remove", "yes");
  const answer = await send(url, body);
  said.textContent = answer.error ?? _("The photo is removed.");
  if (answer.error) return;
  for (const part of findAll("a, img, [data-remove]", find(".photo", row))) part.remove();
}
