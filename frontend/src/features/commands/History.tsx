import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { SideBySide } from "../../ui/SideBySide";
import { day } from "../../ui/time";

export type Section = "commands" | "cues" | "built-ins";
type Props = {
  section: Section;
  name: string;
  /** Puts a version back; missing for who may not. */
  onRevert?: (version: Record<string, unknown>) => void;
};

function versionsOf(section: Section, name: string) {
  const params = { params: { path: { name, key: name } } };
  if (section === "cues") return ask(api.GET("/api/cues/{name}/history", params));
  if (section === "built-ins") return ask(api.GET("/api/built-ins/{key}/history", params));
  return ask(api.GET("/api/commands/{name}/history", params));
}

/** What became of a command, with a way back to each version. */
export function History({ section, name, onRevert }: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const { data } = useQuery({
    queryKey: ["history", section, name],
    queryFn: () => versionsOf(section, name),
    enabled: open,
  });
  return (
    <section className="history">
      <Button variant="link" className="p-0" aria-expanded={open} onClick={() => setOpen(!open)}>
        {t(open ? "history.close" : "history.open")}
      </Button>
      {open && data?.versions.length === 0 && <p className="quiet">{t("history.none")}</p>}
      {open &&
        data?.versions.map((version) => (
          <Step key={`${version.at}${version.by}`} version={version} onRevert={onRevert} />
        ))}
    </section>
  );
}

type StepProps = { version: Schemas["Version"]; onRevert: Props["onRevert"] };

function Step({ version, onRevert }: StepProps) {
  const { t } = useTranslation();
  const { before, after, by, at, place } = version;
  const what = before === null ? "made" : after === null ? "removed" : "changed";
  return (
    <article className="step">
      <p>
        {t(`history.${what}`, { who: by, where: t(`history.places.${place}`) })}{" "}
        <span className="quiet small">{day(at)}</span>
      </p>
      {before !== null && after !== null && (
        <SideBySide left={t("history.before")} right={t("history.after")} one={before} other={after} />
      )}
      {before !== null && onRevert && (
        <Button size="sm" variant="outline-secondary" onClick={() => onRevert(before)}>
          {t("history.revert")}
        </Button>
      )}
    </article>
  );
}
