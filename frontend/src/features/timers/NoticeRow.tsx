import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { TFunction } from "i18next";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { date } from "../../ui/time";
import type { Notice } from "./rota";

type Props = {
  mark: number;
  place: number;
  notice: Notice;
  rota: string;
  platforms: string[];
  commands: string[];
  may: boolean;
  mayMove: boolean;
  problem: string | null;
  onChange: (notice: Notice) => void;
  onDrop: () => void;
};

/** One notice: written in place; its dates and platforms are folded away; it can be tried at once. */
export function NoticeRow({
  mark,
  place,
  notice,
  rota,
  platforms,
  commands,
  may,
  mayMove,
  problem,
  ...on
}: Props) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({
    id: mark,
    disabled: !may,
  });
  const n = place + 1;
  const off = notice.on === false;
  const change = (changes: Partial<Notice>) => {
    const changed = { ...notice, ...changes };
    for (const [key, value] of Object.entries(changes)) if (value === undefined) delete changed[key];
    on.onChange(changed);
  };
  return (
    <article
      ref={setNodeRef}
      className={`notice-row ${off ? "off" : ""}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <div className="notice-line">
        <button
          type="button"
          className="handle"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={t("timers.drag", { n })}
        >
          ⠿
        </button>
        {notice.command === undefined ? (
          <Form.Control
            as="textarea"
            rows={1}
            value={notice.text ?? ""}
            aria-label={t("timers.text", { n })}
            isInvalid={Boolean(problem)}
            onChange={(event) => change({ text: event.target.value })}
          />
        ) : (
          <Form.Select
            value={notice.command}
            aria-label={t("timers.command", { n })}
            isInvalid={Boolean(problem)}
            onChange={(event) => change({ command: event.target.value })}
          >
            {[...new Set([notice.command, ...commands])].map((name) => (
              <option key={name} value={name}>
                {t("timers.postsCommand", { name })}
              </option>
            ))}
          </Form.Select>
        )}
        <Form.Check
          type="switch"
          aria-label={t("timers.noticeOn", { n })}
          checked={!off}
          onChange={(event) => change({ on: event.target.checked ? undefined : false })}
        />
        <Button variant="link" size="sm" aria-expanded={open} onClick={() => setOpen(!open)}>
          {whenWords(t, notice) || t("timers.whenWhere")}
        </Button>
        {may && (
          <Button
            variant="outline-secondary"
            size="sm"
            aria-label={t("timers.dropNotice", { n })}
            onClick={on.onDrop}
          >
            ×
          </Button>
        )}
      </div>
      {problem && <p className="clay">{problem}</p>}
      {open && (
        <div className="notice-more">
          <DateField
            id={`from-${mark}`}
            words={t("timers.from")}
            value={notice.from}
            onChange={(from) => change({ from })}
          />
          <DateField
            id={`until-${mark}`}
            words={t("timers.until")}
            value={notice.until}
            onChange={(until) => change({ until })}
          />
          <span>
            {platforms.map((one) => (
              <Form.Check
                key={one}
                inline
                id={`notice-${mark}-${one}`}
                label={t(`platforms.${one}`, { defaultValue: one })}
                checked={!notice.platforms?.length || notice.platforms.includes(one)}
                onChange={(event) => {
                  const now = notice.platforms?.length ? notice.platforms : platforms;
                  const wanted = event.target.checked ? [...now, one] : now.filter((other) => other !== one);
                  change({
                    platforms: wanted.length && wanted.length < platforms.length ? wanted : undefined,
                  });
                }}
              />
            ))}
          </span>
          {mayMove && <TryIt notice={notice} rota={rota} />}
        </div>
      )}
    </article>
  );
}

function whenWords(t: TFunction, notice: Notice): string {
  const { from, until } = notice;
  if (from && until) return t("timers.fromUntil", { from: date(from), until: date(until) });
  if (from) return t("timers.fromOn", { from: date(from) });
  return until ? t("timers.untilOn", { until: date(until) }) : "";
}

type DateProps = {
  id: string;
  words: string;
  value: string | null | undefined;
  onChange: (value: string | undefined) => void;
};

function DateField({ id, words, value, onChange }: DateProps) {
  return (
    <Form.Group controlId={id} className="d-flex gap-2 align-items-center">
      <Form.Label className="m-0">{words}</Form.Label>
      <Form.Control
        size="sm"
        type="date"
        value={value ?? ""}
        onChange={(event) => onChange(event.target.value || undefined)}
      />
    </Form.Group>
  );
}

/** How it would read, and, with a second press, once for real. */
function TryIt({ notice, rota }: { notice: Notice; rota: string }) {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const [tried, setTried] = useState<Schemas["NoticeTried"] | null>(null);
  const attempt = async (real: boolean) => {
    try {
      const found = await ask(api.POST("/api/rotas/try", { body: { rota, notice, real } }));
      if (real) tell(t("timers.saidOnce"));
      else setTried(found);
    } catch (error) {
      complain(error);
    }
  };
  return (
    <div className="try-notice">
      <Button size="sm" variant="outline-secondary" onClick={() => void attempt(false)}>
        {t("timers.try")}
      </Button>
      {tried && (
        <>
          {tried.problem && <p className="clay">{tried.problem}</p>}
          {tried.shown.map((one) => (
            <p key={one.platform}>
              <span className="quiet">{t(`platforms.${one.platform}`, { defaultValue: one.platform })}:</span>{" "}
              {one.parts.join(" … ")}
            </p>
          ))}
          {!tried.problem && (
            <Button size="sm" variant="outline-secondary" onClick={() => void attempt(true)}>
              {t("timers.sayOnce")}
            </Button>
          )}
        </>
      )}
    </div>
  );
}
