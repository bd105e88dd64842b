import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import type { Draft } from "./types";

/** A value that follows after a short rest. */
function useRested<T>(value: T, rest = 250): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), rest);
    return () => clearTimeout(timer);
  }, [value, rest]);
  return rested;
}

/** What the server says of a draft while one types: the reply on each platform, and whether its names are free. */
export function usePreview(draft: Draft, was: string | null, place: number, cue: boolean) {
  const reply = draft.reply[place] ?? draft.reply[0] ?? "";
  const asked = { reply, was, name: cue ? "" : draft.name.trim(), aliases: cue ? [] : draft.aliases };
  const rested = useRested(JSON.stringify(asked));
  return useQuery({
    queryKey: ["preview", rested],
    queryFn: () => ask(api.POST("/api/commands/preview", { body: JSON.parse(rested) as typeof asked })),
    placeholderData: keepPreviousData,
  });
}

/** The reply as each platform would show it. */
export function Preview({ reply, found }: { reply: string; found: Schemas["Preview"] | undefined }) {
  const { t } = useTranslation();
  if (!reply.trim()) return null;
  return (
    <aside className="preview" aria-live="polite">
      <h3>{t("commands.preview")}</h3>
      {found?.problem && (
        <p className="clay">
          {t("commands.at", { line: found.line ?? 1, column: found.column ?? 1 })} {found.problem}
        </p>
      )}
      {found?.shown?.map((one) => (
        <div key={one.platform} className="preview-platform">
          <p className="quiet">
            {t(`platforms.${one.platform}`, { defaultValue: one.platform })},{" "}
            {t("commands.parts", { count: one.parts.length })}
          </p>
          {one.parts.map((part, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one reply, in order
            <p key={index} className="bubble">
              <b className="gatekeeper-name">{t("desk.gatekeeper")}</b> {part}
            </p>
          ))}
        </div>
      ))}
    </aside>
  );
}
