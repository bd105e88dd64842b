import type { TFunction } from "i18next";
import type { Reason } from "../live/types";

const share = (value: number | null) => `${Math.round((value ?? 0) * 100)} %`;

/** A finding in a sentence. */
export function reasonWords(t: TFunction, reason: Reason): string {
  if (reason.filter === "capitals")
    return t("why.capitals", { measured: share(reason.measured), limit: share(reason.limit) });
  return t("why.links", { text: reason.text });
}
