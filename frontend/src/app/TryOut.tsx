import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form, Offcanvas } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../api/client";
import type { Exempt, Reason } from "../live/types";
import { Choice } from "../ui/Choice";
import { exemptWords, reasonWords } from "../ui/findings";
import { LEVELS } from "../ui/levels";
import { MarkedText } from "../ui/MarkedText";
import { inWords } from "../ui/time";
import { useLive } from "../ui/useLive";
import { useUnsaved } from "../ui/useUnsaved";

/** The person's own level. */
const OWN = "own";
const MOMENTS = ["now", "1", "10", "60", "other"] as const;

type Found = {
  effect: string;
  outcome?: string;
  seconds?: number | null;
  reasons?: Reason[];
  exempt?: Exempt[];
  platform?: string;
  text?: string;
  private_to?: string | null;
  command?: string;
  why?: string;
  wait?: number | null;
  name?: string;
  before?: unknown;
  after?: unknown;
  path?: string;
  title?: string;
  problem?: string;
};

/** A drawer over any room: a message of anybody through the real gate, touching nothing. */
export function TryOut({ shown, onHide }: { shown: boolean; onHide: () => void }) {
  const { t } = useTranslation();
  const platforms = useLive((state) => state.parts.stream)?.platforms.map((one) => one.name) ?? ["brook"];
  const settings = useLive((state) => state.parts.settings);
  const people = useLive((state) => state.lines);
  const held = useUnsaved();
  const [text, setText] = useState("");
  const [login, setLogin] = useState("thimblewick");
  const [level, setLevel] = useState<string>(OWN);
  const [platform, setPlatform] = useState("brook");
  const [live, setLive] = useState(true);
  const [fresh, setFresh] = useState(false);
  const [withUnsaved, setWithUnsaved] = useState(true);
  const [moment, setMoment] = useState<string>("now");
  const [other, setOther] = useState("");
  const changes = withUnsaved ? held : [];
  const asked = {
    text,
    login,
    level: level === OWN ? null : level,
    platform,
    live,
    new: fresh,
    action: false,
    changes,
  };
  const { data, error } = useQuery({
    queryKey: ["try-out", asked, moment, other, settings],
    queryFn: () => ask(api.POST("/api/try-out", { body: { ...asked, at: momentOf(moment, other) } })),
    enabled: shown && text.trim() !== "" && login.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const found = text.trim() && !error ? ((data?.effects ?? []) as Found[]) : [];
  const logins = [...new Set(people.map((line) => line.person.login))].slice(-100);
  const switches: [string, string, boolean, (on: boolean) => void][] = [
    ["try-live", t("tryOut.live"), live, setLive],
    ["try-fresh", t("rules.new"), fresh, setFresh],
  ];
  if (held.length)
    switches.push(["try-unsaved", t("tryOut.unsaved", { count: held.length }), withUnsaved, setWithUnsaved]);
  const whereWords = (one: string) => t(`platforms.${one}`, { defaultValue: one });
  return (
    <Offcanvas show={shown} onHide={onHide} placement="end" scroll backdrop={false} className="try-out">
      <Offcanvas.Header closeButton>
        <Offcanvas.Title as="h2" className="room-title">
          {t("tryOut.title")}
        </Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>
        <p className="quiet">{t("tryOut.lead")}</p>
        <Form.Group controlId="try-text" className="mb-2">
          <Form.Label>{t("tryOut.message")}</Form.Label>
          <Form.Control
            value={text}
            placeholder={t("rules.tryPlaceholder")}
            onChange={(event) => setText(event.target.value)}
          />
        </Form.Group>
        <div className="pair">
          <Form.Group controlId="try-login" className="mb-2">
            <Form.Label>{t("tryOut.by")}</Form.Label>
            <Form.Control
              value={login}
              list="try-people"
              onChange={(event) => setLogin(event.target.value.trim())}
            />
            <datalist id="try-people">
              {logins.map((one) => (
                <option key={one} value={one} />
              ))}
            </datalist>
          </Form.Group>
          <Choice
            id="try-level"
            label={t("tryOut.level")}
            value={level}
            values={[OWN, ...LEVELS]}
            words={(one) => t(one === OWN ? "tryOut.own" : `levels.${one}`)}
            onChange={setLevel}
          />
          <Choice
            id="try-platform"
            label={t("tryOut.platform")}
            value={platform}
            values={platforms}
            words={whereWords}
            onChange={setPlatform}
          />
          <Choice
            id="try-moment"
            label={t("tryOut.moment")}
            value={moment}
            values={MOMENTS}
            words={(one) => t(`tryOut.moments.${one}`)}
            onChange={setMoment}
          />
          {moment === "other" && (
            <Form.Group controlId="try-at" className="mb-2">
              <Form.Label>{t("tryOut.at")}</Form.Label>
              <Form.Control
                type="datetime-local"
                value={other}
                onChange={(event) => setOther(event.target.value)}
              />
            </Form.Group>
          )}
        </div>
        <div className="try-switches">
          {switches.map(([id, label, on, put]) => (
            <Form.Check
              key={id}
              type="switch"
              id={id}
              label={label}
              checked={on}
              onChange={(event) => put(event.target.checked)}
            />
          ))}
        </div>
        {error instanceof Problem && <p className="clay">{error.detail}</p>}
        <div role="status" className="try-found">
          {found.length > 0 && data && (
            <p className="quiet small">
              {t(data.known ? "tryOut.known" : "tryOut.madeUp", {
                name: login,
                level: t(`levels.${data.level}`),
              })}
            </p>
          )}
          {found.map((effect, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the effects of one message are an ordered list without names
            <Came key={place} effect={effect} text={text} only={found.length === 1} />
          ))}
        </div>
      </Offcanvas.Body>
    </Offcanvas>
  );
}

/** The moment that is meant, as the server reads it; null for now. */
function momentOf(moment: string, other: string): string | null {
  if (moment === "now" || (moment === "other" && !other)) return null;
  const at = moment === "other" ? new Date(other) : new Date(Date.now() + Number(moment) * 60_000);
  return Number.isNaN(at.getTime()) ? null : at.toISOString();
}

/** One thing that would come of the message. */
function Came({ effect, text, only }: { effect: Found; text: string; only: boolean }) {
  const { t } = useTranslation();
  const where = t(`platforms.${effect.platform}`, { defaultValue: effect.platform });
  const time = effect.seconds ? inWords(t, effect.seconds) : "";
  if (effect.effect === "verdict")
    return (
      <div className="tried">
        <b className={effect.outcome === "allow" ? "moss" : "clay"}>{t(`rules.tried.${effect.outcome}`)}</b>
        {Boolean(effect.reasons?.length) && (
          <blockquote>
            <MarkedText text={text} reasons={effect.reasons ?? []} />
          </blockquote>
        )}
        <ul>
          {effect.reasons?.map((reason) => (
            <li key={`${reason.filter}${reason.span}`}>{reasonWords(t, reason)}</li>
          ))}
          {effect.exempt?.map((exempt) => (
            <li key={`${exempt.filter}${exempt.by}`}>{exemptWords(t, exempt)}</li>
          ))}
        </ul>
        {only && effect.outcome === "allow" && <p className="quiet mb-0">{t("tryOut.nothing")}</p>}
      </div>
    );
  if (effect.effect === "say")
    return (
      <p className="bubble">
        <span className="quiet small">
          {where}
          {effect.private_to && ` · ${t("tryOut.private")}`}
        </span>
        <br />
        {effect.text}
      </p>
    );
  if (effect.effect === "refused") {
    const wait =
      effect.why === "cooldown" && effect.wait !== null ? inWords(t, Math.ceil(effect.wait ?? 0)) : "";
    const key = effect.why === "cooldown" && effect.wait === null ? "cooldownStream" : effect.why;
    return <p className="straw">{t(`marks.refused.${key}`, { name: effect.command ?? "", wait })}</p>;
  }
  if (effect.effect === "counter")
    return <p>{t("marks.counted", { label: effect.name, before: effect.before, after: effect.after })}</p>;
  if (effect.effect === "setting") return <p>{t("tryOut.setting", { path: effect.path })}</p>;
  if (effect.effect === "warning") return <p className="straw">{t("marks.warning", effect)}</p>;
  if (["remove", "timeout", "ban", "title"].includes(effect.effect))
    return (
      <p className="quiet small">
        {where}: {t(`why.acts.${effect.effect}`)} {time || effect.title}
      </p>
    );
  return null;
}
