import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";

/** A value that follows after a short rest. */
function useRested<T>(value: T, rest = 250): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), rest);
    return () => clearTimeout(timer);
  }, [value, rest]);
  return rested;
}

/** The reply as each platform would show it, while one types. */
export function Preview({ reply }: { reply: string }) {
  const { t } = useTranslation();
  const rested = useRested(reply);
  const { data } = useQuery({
    queryKey: ["preview", rested],
    queryFn: () => ask(api.POST("/api/commands/preview", { body: { reply: rested } })),
    placeholderData: keepPreviousData,
    enabled: rested.trim() !== "",
  });
  if (!reply.trim()) return <div />;
  return (
    <aside className="preview" aria-live="polite">
      <h3>{t("commands.preview")}</h3>
      {data?.problem && (
        <p className="clay">
          {t("commands.at", { line: data.line ?? 1, column: data.column ?? 1 })} {data.problem}
        </p>
      )}
      {data?.shown?.map((one) => (
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
