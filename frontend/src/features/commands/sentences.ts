import type { TFunction } from "i18next";
import { spanWords } from "../../ui/time";
import type { Cooldown, Draft, Leave } from "./types";

const list = (items: string[]) => items.join(", ");

/** Who may use it: "Regulars and above, and quillwort; never grumblepot". */
export function whoWords(t: TFunction, { level, people, never }: Leave): string {
  const who = t(`levelsUp.${level}`);
  const also = people.length && level !== "everyone" ? t("sentences.also", { people: list(people) }) : "";
  const but = never.length ? t("sentences.never", { people: list(never) }) : "";
  return `${who}${also}${but}`;
}

/** How often: "once in 5 s all together, once per stream each". `usual` is the channel's own cooldown. */
export function oftenWords(t: TFunction, leave: Leave, usual: Cooldown): string {
  const own = { everyone: leave.everyone.trim(), person: leave.person.trim() };
  const wanted = leave.cooling === "default" ? usual : leave.cooling === "none" ? "none" : own;
  if (typeof wanted !== "object") return t("sentences.asTheyLike");
  const once = (span: unknown, whose: string) =>
    !span || /^0+s?$/.test(String(span))
      ? []
      : [
          span === "stream"
            ? t(`sentences.perStream.${whose}`)
            : t(`sentences.once.${whose}`, { time: spanWords(t, span) }),
        ];
  const parts = [...once(wanted.everyone, "everyone"), ...once(wanted.person, "person")];
  return parts.length ? list(parts) : t("sentences.asTheyLike");
}

/** Where and when it is heard. */
export function whereWords(t: TFunction, { platforms, when }: Pick<Draft, "platforms" | "when">): string {
  const names = platforms.map((one) => t(`platforms.${one}`, { defaultValue: one }));
  const where = names.length ? t("sentences.on", { names: list(names) }) : t("sentences.everywhere");
  return when === "always" ? where : `${where}, ${t(`sentences.${when}`)}`;
}

export function countWords(t: TFunction, counts: Draft["counts"]): string {
  if (!counts.length) return t("sentences.countsNothing");
  return list(
    counts.map(({ counter, how, amount }) => {
      const signed = /^\d/.test(amount) ? `+${amount}` : amount;
      return how === "set" ? `${counter} = ${amount}` : `${counter} ${signed}`;
    }),
  );
}

/** The whole in one sentence: "Regulars and above, once per stream each, on every platform." */
export function wholeWords(t: TFunction, draft: Draft, usual: Cooldown): string {
  return `${whoWords(t, draft)}, ${oftenWords(t, draft, usual)}, ${whereWords(t, draft)}.`;
}
