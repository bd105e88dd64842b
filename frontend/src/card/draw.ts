/** A stage card drawn into an element; the page for video software and the preview draw the same. */
import "./card.scss";
import type { Schemas } from "../api/client";

/** What the socket of a stage card sends. */
export type CardState = { label: string; value: string; style: Schemas["CardStyle"] };

/** Whether a colour such as #FFFDF8 is nearer to white than to black (relative luminance of WCAG 2.2). */
export function isBright(colour: string): boolean {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((place) => {
    const share = Number.parseInt(colour.slice(place, place + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue > 0.18;
}

/** Draws it; the number moves for a moment where it is another than before. */
export function draw(element: HTMLElement, { label, value, style }: CardState): void {
  let number = element.querySelector<HTMLElement>(".card-value");
  let words = element.querySelector<HTMLElement>(".card-label");
  if (!number || !words) {
    words = document.createElement("span");
    words.className = "card-label";
    number = document.createElement("span");
    number.className = "card-value";
    element.replaceChildren(words, number);
  }
  const halo = style.ground === "sheet" ? "" : isBright(style.colour) ? "dark-halo" : "bright-halo";
  element.className = `stage-card ${style.align} ${style.ground} ${style.typeface} ${halo}`;
  element.style.fontSize = `${style.size}px`;
  element.style.color = style.colour;
  words.textContent = label;
  words.hidden = !style.label || !label;
  if (number.textContent === value) return;
  const first = number.textContent === "";
  number.textContent = value;
  if (first) return;
  number.classList.remove("moved");
  void number.offsetWidth; // so that the same movement begins anew
  number.classList.add("moved");
}
