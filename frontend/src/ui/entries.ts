/** What an entry of the ledger says, in words: the place in the settings, or what else it is about, and what changed. */
import type { TFunction } from "i18next";
import { written } from "./differences";
import { clock, inWords } from "./time";

type About = { what: string; about?: string | null; before?: unknown; after?: unknown };

const ABOUT_PLACES = new Set(["setting", "tonight", "put_back"]);
const ABOUT_PLATFORMS = new Set([
  "title",
  "category",
  "marker",
  "clip",
  "ad",
  "raid",
  "raid_armed",
  "shoutout",
]);
const LEVELS = new Set(["account", "permission", "invite"]);
const TOLD_ALREADY = new Set(["note", "undo", "remove", "lift", "ban", "arrivals", "erase", "sessions"]);

/** A field of something, as its form calls it. */
export function fieldLabel(t: TFunction, field: string): string {
  const known = [`rules.fields.${field}`, `commands.fields.${field}`, `places.fields.${field}`];
  return t(known, { defaultValue: field.replaceAll("_", " ") });
}

const fieldWords = (t: TFunction, field: string) => fieldLabel(t, field).toLowerCase();

/** A place in the settings: "commands.kiln" → "command kiln", "filters.length.most" → "filter Length, at most". */
export function placeWords(t: TFunction, place: string): string {
  const [section = "", first = "", ...rest] = place.split(".");
  if (place === "channel.mood") return t("places.mood");
  if (section === "people")
    return t(`people.lists.${first}`, { defaultValue: t("places.people", { name: first }) });
  const fields = rest.map((field) => fieldWords(t, field));
  if (section === "filters") {
    const name = t(`filters.${first}`, { defaultValue: first });
    return [t("places.filters", { name }), ...fields].join(", ");
  }
  const named = t(`places.${section}`, { name: first, defaultValue: "" });
  if (named) return [named, ...fields].join(", ");
  const room = t(`sectionBack.sections.${section}`, { defaultValue: "" });
  return room && first
    ? `${room}: ${[first, ...rest].map((field) => fieldWords(t, field)).join(", ")}`
    : room || place;
}

/** What an entry is about, people aside. */
export function aboutWords(t: TFunction, { what, about }: About): string {
  if (!about) return "";
  if (ABOUT_PLACES.has(what)) return placeWords(t, about);
  if (ABOUT_PLATFORMS.has(what)) return t(`platforms.${about}`, { defaultValue: about });
  if (what === "permission") return t(`team.acts.${about}`, { defaultValue: about });
  if (what === "card" || what === "card_key") return about.replace("counter:", "");
  return about;
}

/** What changed, in a few words; empty where the kind of entry says it already. */
export function changeWords(t: TFunction, entry: About): string {
  const { what, before, after } = entry;
  if (TOLD_ALREADY.has(what)) return "";
  if (what === "timeout") return typeof after === "number" ? inWords(t, after) : "";
  if (what === "mark") return t(`ledger.marks.${after}`, { defaultValue: written(after) });
  if (what === "pass") return passWords(t, before, after);
  const one = (value: unknown) => {
    if (typeof value === "boolean") return t(value ? "places.isOn" : "places.isOff");
    if (LEVELS.has(what) && typeof value === "string")
      return t(`team.levels.${value}`, { defaultValue: value });
    return written(value);
  };
  const [was, is] = [one(before), one(after)];
  if (!was && !is) return "";
  return was || ABOUT_PLACES.has(what) ? `${was || "—"} → ${is || "—"}` : is;
}

function passWords(t: TFunction, filters: unknown, until: unknown): string {
  const names = (Array.isArray(filters) ? filters : []).map((key) =>
    t(`filters.${key}`, { defaultValue: String(key) }),
  );
  const end = typeof until === "number" ? t("ledger.until", { time: clock(until) }) : t("desk.untilStream");
  return [names.join(", "), end].filter(Boolean).join(", ");
}
