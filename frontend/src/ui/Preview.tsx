import { useTranslation } from "react-i18next";
import type { Schemas } from "../api/client";

type Props = { reply: string; found: Schemas["Preview"] | undefined; platforms?: number };

/** The reply as each platform would show it, or as the first few would. */
export function Preview({ reply, found, platforms = Number.POSITIVE_INFINITY }: Props) {
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
      {found?.shown?.slice(0, platforms).map((one) => (
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
