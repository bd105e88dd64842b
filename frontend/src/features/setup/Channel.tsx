import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { useHoldUnsaved } from "../../ui/useUnsaved";

type Cooldown = "none" | { everyone?: unknown; person?: unknown };
type Values = Record<
  "name" | "prefix" | "timezone" | "everyone" | "person" | "spacing" | "stream_gap",
  string
>;

const FIELDS = ["name", "prefix", "timezone", "everyone", "person", "spacing", "stream_gap"] as const;

function shownOf(values: Record<string, unknown>): Values {
  const cooldown = values.cooldown as Cooldown;
  const own = typeof cooldown === "object" ? cooldown : {};
  const text = (value: unknown) => String(value ?? "");
  return {
    name: text(values.name),
    prefix: text(values.prefix),
    timezone: text(values.timezone),
    everyone: text(own.everyone),
    person: text(own.person),
    spacing: text(values.spacing),
    stream_gap: text(values.stream_gap),
  };
}

function valuesOf(shown: Values) {
  const { everyone, person, ...rest } = shown;
  const waits = {
    ...(everyone.trim() && { everyone: everyone.trim() }),
    ...(person.trim() && { person: person.trim() }),
  };
  return { ...rest, cooldown: Object.keys(waits).length ? waits : "none" };
}

/** The channel's name, prefix and zone, and how often commands may be used unless they say otherwise. */
export function Channel({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell } = useTelling();
  const { data } = useQuery({
    queryKey: ["section", "channel"],
    queryFn: () => ask(api.GET("/api/sections/{section}", { params: { path: { section: "channel" } } })),
  });
  const [typed, setTyped] = useState<Partial<Values>>({});
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const saved = data ? shownOf(data.values) : null;
  const shown = saved && { ...saved, ...typed };
  const changed = saved ? FIELDS.filter((field) => shown?.[field] !== saved[field]) : [];
  const values = shown && valuesOf(shown);
  const held = changed.length && values ? Object.entries(values) : [];
  useHoldUnsaved(
    "channel",
    held.map(([field, value]) => ({ path: `channel.${field}`, value })),
  );
  if (!shown || !values || !data) return null;

  const save = async () => {
    setProblem(null);
    try {
      const params = { path: { section: "channel" } };
      await ask(api.PUT("/api/sections/{section}", { params, body: { values, revision: data.revision } }));
      setTyped({});
      tell(t("setup.channel.saved"));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem({ field: error.where?.split(".").at(-1) ?? null, detail: error.detail });
    }
    await queries.invalidateQueries();
  };
  return (
    <form
      className="channel-form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">{t("setup.parts.channel")}</h2>
        {changed.length > 0 && <span className="chip straw">{t("commands.unsaved")}</span>}
      </div>
      {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
      <fieldset disabled={!may}>
        {FIELDS.map((field) => (
          <Form.Group className="mb-3" controlId={`channel-${field}`} key={field}>
            <Form.Label>{t(`setup.channel.${field}`)}</Form.Label>
            <Form.Control
              value={shown[field]}
              list={field === "timezone" ? "zones" : undefined}
              isInvalid={problem?.field === field}
              onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
            />
            <Form.Text className={problem?.field === field ? "text-danger" : ""}>
              {problem?.field === field ? problem.detail : t(`setup.channel.${field}Help`)}
            </Form.Text>
          </Form.Group>
        ))}
        <datalist id="zones">
          {Intl.supportedValuesOf("timeZone").map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
        {problem && !FIELDS.includes(problem.field as never) && (
          <p className="clay" role="alert">
            {problem.detail}
          </p>
        )}
        {may && (
          <div className="d-flex gap-2">
            <Button type="submit" disabled={!changed.length}>
              {t("commands.save")}
            </Button>
            {changed.length > 0 && (
              <Button variant="outline-secondary" onClick={() => setTyped({})}>
                {t("commands.discard")}
              </Button>
            )}
          </div>
        )}
      </fieldset>
    </form>
  );
}
