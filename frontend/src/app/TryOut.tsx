import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form, Offcanvas } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../api/client";
import type { Exempt, Reason } from "../live/types";
import { exemptWords, reasonWords } from "../ui/findings";
import { MarkedText } from "../ui/MarkedText";
import { inWords } from "../ui/time";
import { useLive } from "../ui/useLive";

const LEVELS = ["everyone", "follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster"];

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

/** A drawer over any room: a made-up message through the real gate, touching nothing. */
export function TryOut({ shown, onHide }: { shown: boolean; onHide: () => void }) {
  const { t } = useTranslation();
  const platforms = useLive((state) => state.parts.stream)?.platforms.map((one) => one.name) ?? [];
  const settings = useLive((state) => state.parts.settings);
  const [text, setText] = useState("");
  const [login, setLogin] = useState("thimblewick");
  const [level, setLevel] = useState("everyone");
  const [platform, setPlatform] = useState("brook");
  const [live, setLive] = useState(true);
  const [fresh, setFresh] = useState(false);
  const { data, error } = useQuery({
    queryKey: ["try-out", text, login, level, platform, live, fresh, settings],
    queryFn: () =>
      ask(
        api.POST("/api/try-out", {
          body: { text, login, level, platform, live, new: fresh, action: false, filters: {} },
        }),
      ),
    enabled: shown && text.trim() !== "" && login.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const found = text.trim() ? ((data?.effects ?? []) as Found[]) : [];
  const choice = (id: string, label: string, value: string, put: (value: string) => void, all: string[]) => (
    <Form.Group controlId={id}>
      <Form.Label>{label}</Form.Label>
      <Form.Select value={value} onChange={(event) => put(event.target.value)}>
        {all.map((one) => (
          <option key={one} value={one}>
            {id === "try-level" ? t(`levels.${one}`) : t(`platforms.${one}`, { defaultValue: one })}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
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
            <Form.Control value={login} onChange={(event) => setLogin(event.target.value.trim())} />
          </Form.Group>
          {choice("try-level", t("tryOut.level"), level, setLevel, LEVELS)}
          {choice(
            "try-platform",
            t("tryOut.platform"),
            platform,
            setPlatform,
            platforms.length ? platforms : ["brook"],
          )}
          <div className="try-switches">
            <Form.Check
              type="switch"
              id="try-live"
              label={t("tryOut.live")}
              checked={live}
              onChange={(event) => setLive(event.target.checked)}
            />
            <Form.Check
              type="switch"
              id="try-fresh"
              label={t("rules.new")}
              checked={fresh}
              onChange={(event) => setFresh(event.target.checked)}
            />
          </div>
        </div>
        {error instanceof Problem && <p className="clay">{error.detail}</p>}
        <div role="status" className="try-found">
          {found.map((effect, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the effects of one message are an ordered list without names
            <Came key={place} effect={effect} text={text} only={found.length === 1} />
          ))}
        </div>
      </Offcanvas.Body>
    </Offcanvas>
  );
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
