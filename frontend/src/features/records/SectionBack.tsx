import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useSearchParams } from "react-router";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { placeWords } from "../../ui/entries";
import { useTelling } from "../../ui/Notice";
import { SideBySide } from "../../ui/SideBySide";
import { when } from "../../ui/time";
import { useMe } from "../../ui/useMe";
import { useTakeBack } from "../../ui/useTakeBack";

type Section = Schemas["SectionBack"]["section"];
const SECTIONS: Section[] = [
  "commands",
  "cues",
  "built_ins",
  "counters",
  "rotas",
  "filters",
  "ladder",
  "channel",
  "people",
  "arrivals",
  "shoutouts",
  "happenings",
  "quotes",
];

/** A moment in microseconds as the field for day and time writes it. */
const written = (moment: number) => {
  const date = new Date(moment / 1000);
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 19);
};

/** A section of the settings put back to how it was at a time: seen first, done in one press, taken back in one. */
export function SectionBack() {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const { tell, complain } = useTelling();
  const takeBack = useTakeBack();
  const [asked, setAsked] = useSearchParams();
  const section = (asked.get("section") as Section) ?? "commands";
  const at = Number(asked.get("at")) || null;
  const [busy, setBusy] = useState(false);
  const choose = (changes: Record<string, string>) =>
    setAsked({ ...Object.fromEntries(asked), ...changes }, { replace: true });
  const query = { section, at: at ?? 0 };
  const { data, error } = useQuery({
    queryKey: ["section-then", section, at],
    queryFn: () => ask(api.GET("/api/ledger/section", { params: { query } })),
    enabled: at !== null,
    retry: false,
  });
  const { data: changes } = useQuery({
    queryKey: ["ledger", "of-section", section],
    queryFn: () =>
      ask(api.GET("/api/ledger", { params: { query: { what: "setting", text: `${section}.` } } })),
  });
  const moments = changes?.entries.filter((one) => one.about?.startsWith(`${section}.`)).slice(0, 8) ?? [];
  const may = me?.may.includes(
    section === "people" ? "people" : ["filters", "ladder"].includes(section) ? "filters" : "commands",
  );
  const put = async () => {
    if (!data || at === null) return;
    setBusy(true);
    try {
      const body = { section, at, revision: data.revision };
      const done = await ask(api.POST("/api/ledger/section", { body }));
      tell(t("sectionBack.done", { count: done.changed }), {
        label: t("commands.undo"),
        run: () => void takeBack(done.number),
      });
    } catch (problem) {
      complain(problem);
    }
    setBusy(false);
  };
  return (
    <>
      <h2 className="room-title">{t("sectionBack.title")}</h2>
      <p>{t("sectionBack.lead")}</p>
      <div className="section-then">
        <Form.Group controlId="then-section">
          <Form.Label>{t("sectionBack.section")}</Form.Label>
          <Form.Select value={section} onChange={(event) => choose({ section: event.target.value })}>
            {SECTIONS.map((one) => (
              <option key={one} value={one}>
                {t(`sectionBack.sections.${one}`)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="then-at">
          <Form.Label>{t("sectionBack.at")}</Form.Label>
          <Form.Control
            type="datetime-local"
            step={1}
            value={at ? written(at) : ""}
            onChange={(event) => {
              const chosen = new Date(event.target.value).getTime();
              if (Number.isFinite(chosen)) choose({ at: String(chosen * 1000 + 999_999) });
            }}
          />
        </Form.Group>
      </div>
      {moments.length > 0 && (
        <p className="moments">
          <span className="quiet">{t("sectionBack.before")}</span>{" "}
          {moments.map((one) => (
            <button
              key={one.number}
              type="button"
              className="link"
              onClick={() => choose({ at: String(one.at - 1) })}
            >
              {when(one.at)} · {one.who} · {placeWords(t, one.about ?? "")}
            </button>
          ))}
        </p>
      )}
      {error instanceof Problem && <p className="clay">{error.detail}</p>}
      {data && at !== null && (
        <>
          <h3>
            {data.changes.length
              ? t("sectionBack.would", { count: data.changes.length })
              : t("sectionBack.same")}
          </h3>
          {data.kept > 0 && <p className="quiet">{t("sectionBack.kept", { count: data.kept })}</p>}
          {data.changes.map((one) => (
            <div key={one.path} className="then-change" data-path={one.path}>
              <b>{placeWords(t, one.path)}</b>
              <SideBySide
                left={t("sectionBack.now")}
                right={t("sectionBack.then")}
                one={one.now}
                other={one.then}
              />
            </div>
          ))}
          {may && data.changes.length > 0 && (
            <Button disabled={busy} onClick={() => void put()}>
              {t("sectionBack.go")}
            </Button>
          )}
        </>
      )}
    </>
  );
}
