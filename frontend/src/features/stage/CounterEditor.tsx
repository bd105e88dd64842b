import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { LEVELS } from "../../ui/levels";
import { useTelling } from "../../ui/Notice";
import { SideBySide } from "../../ui/SideBySide";
import { spanWords } from "../../ui/time";
import { useLive } from "../../ui/useLive";
import { useTakeBack } from "../../ui/useTakeBack";
import { useHoldUnsaved } from "../../ui/useUnsaved";
import { CardEditor } from "./CardEditor";
import { CounterSteps } from "./CounterSteps";
import { type Counter, type CounterDraft, counterOf, draftOf, EMPTY } from "./counter";

type Props = { view: Schemas["CommandView"] | null; may: boolean; mayCount: boolean };
const FIELDS = ["name", "label", "start", "lowest", "guard", "needs"];

/** A counter: its label and name, how it keeps, who moves it; where it stands; its stage card. */
export function CounterEditor({ view, may, mayCount }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { tell, complain } = useTelling();
  const takeBack = useTakeBack();
  const prefix = useLive((state) => state.parts.channel?.prefix ?? "!");
  const before = (view?.command as Counter | undefined) ?? null;
  const saved = before ? draftOf(before) : EMPTY;
  const [typed, setTyped] = useState<Partial<CounterDraft>>({});
  const [from, setFrom] = useState<string | null>(null);
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const [theirs, setTheirs] = useState<Counter | null>(null);
  const draft = { ...saved, ...typed };
  const dirty = JSON.stringify(draft) !== JSON.stringify(saved);
  const name = view?.name ?? draft.name.trim();
  useHoldUnsaved(
    "counter",
    dirty && name ? [{ path: `counters.${name}`, value: counterOf(draft, before) }] : [],
  );
  const change = (changes: Partial<CounterDraft>) => {
    if (!dirty) setFrom(view?.revision ?? null);
    setTyped({ ...typed, ...changes });
  };
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  const done = async () => {
    setTyped({});
    setTheirs(null);
    await queries.invalidateQueries({ queryKey: ["counters"] });
    await queries.invalidateQueries({ queryKey: ["cards"] });
  };

  const save = async (revision: string | null) => {
    setProblem(null);
    try {
      const params = { path: { name: name || "+" } };
      const body = { command: counterOf(draft, before), revision };
      const now = await ask(api.PUT("/api/counters/{name}", { params, body }));
      await done();
      tell(t("stage.counterSaved", { command: `${prefix}count ${now.name}` }));
      if (!view) navigate(`/stage/counter/${encodeURIComponent(now.name)}`);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.theirs) setTheirs(error.theirs as Counter);
      else setProblem({ field: fieldOf(error.where), detail: error.detail });
    }
  };
  const keepMine = async () => {
    const fresh = await ask(api.GET("/api/counters"));
    await save(fresh.find((one) => one.name === name)?.revision ?? null);
  };
  const remove = async () => {
    if (!view) return;
    try {
      const params = { path: { name }, query: { revision: view.revision } };
      const gone = await ask(api.DELETE("/api/counters/{name}", { params }));
      await done();
      navigate("/stage");
      tell(t("stage.counterRemoved", { label: saved.label || name }), {
        label: t("commands.undo"),
        run: () => void takeBack(gone.number),
      });
    } catch (error) {
      complain(error);
    }
  };

  return (
    <>
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void save(from);
        }}
      >
        <div className="chosen-head">
          <h2 className="room-title">{view ? saved.label || view.name : t("stage.newCounter")}</h2>
          {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        </div>
        {!may && <p className="quiet">{t("setup.channel.readOnly")}</p>}
        <div className="two-sides">
          <fieldset disabled={!may}>
            <Field
              id="label"
              value={draft.label}
              problem={wrong("label")}
              onChange={(label) => change({ label })}
            />
            {view ? (
              <p>
                {t("stage.counter.inChat")} <code>{`${prefix}count ${view.name}`}</code>{" "}
                <code>{`${prefix}count ${view.name} +1`}</code>{" "}
                <code>{`${prefix}count ${view.name} undo`}</code>
              </p>
            ) : (
              <Field
                id="name"
                value={draft.name}
                problem={wrong("name")}
                onChange={(one) => change({ name: one })}
              />
            )}
            <Fold
              title={t("stage.counter.keeping")}
              says={t(`stage.counter.says.${draft.keep}`, {
                start: draft.start,
                lowest: draft.lowest.trim() ? t("stage.counter.atLeast", { n: draft.lowest }) : "",
              })}
              open={Boolean(wrong("start") ?? wrong("lowest"))}
            >
              <Choice
                id="counter-keep"
                label={t("stage.counter.keep")}
                value={draft.keep}
                values={["always", "stream"]}
                words={(one) => t(`stage.counter.keeps.${one}`)}
                onChange={(keep) => change({ keep: keep as CounterDraft["keep"] })}
              />
              <div className="pair">
                <Field
                  id="start"
                  value={draft.start}
                  problem={wrong("start")}
                  onChange={(start) => change({ start })}
                />
                <Field
                  id="lowest"
                  value={draft.lowest}
                  problem={wrong("lowest")}
                  onChange={(lowest) => change({ lowest })}
                />
              </div>
            </Fold>
            <Fold
              title={t("stage.counter.who")}
              says={t("stage.counter.saysWho", {
                who: t(`levels.${draft.level}`),
                guard: spanWords(t, draft.guard || "0s"),
              })}
              open={Boolean(wrong("guard") ?? wrong("needs"))}
            >
              <Choice
                id="counter-level"
                label={t("commands.level")}
                value={draft.level}
                values={LEVELS}
                words={(one) => t(`levels.${one}`)}
                onChange={(level) => change({ level })}
              />
              <Field
                id="guard"
                value={draft.guard}
                problem={wrong("guard")}
                onChange={(guard) => change({ guard })}
              />
            </Fold>
            {problem && !FIELDS.includes(problem.field ?? "") && (
              <Alert variant="danger">{problem.detail}</Alert>
            )}
            {theirs && (
              <Alert variant="warning">
                <p>{t("stage.theirs")}</p>
                <SideBySide
                  left={t("commands.mine")}
                  right={t("commands.other")}
                  one={counterOf(draft, before)}
                  other={theirs}
                />
                <div className="d-flex gap-2">
                  <Button size="sm" onClick={() => void keepMine()}>
                    {t("commands.keepMine")}
                  </Button>
                  <Button size="sm" variant="outline-secondary" onClick={() => void done()}>
                    {t("commands.takeTheirs")}
                  </Button>
                </div>
              </Alert>
            )}
            {may && (
              <div className="d-flex gap-2 save-row">
                <Button type="submit" disabled={!dirty}>
                  {t("commands.save")}
                </Button>
                {dirty && (
                  <Button variant="outline-secondary" onClick={() => setTyped({})}>
                    {t("commands.discard")}
                  </Button>
                )}
                <span className="flex-grow-1" />
                {view && (
                  <Button variant="outline-danger" onClick={() => void remove()}>
                    {t("stage.removeCounter")}
                  </Button>
                )}
              </div>
            )}
          </fieldset>
          {view && <CounterSteps name={view.name} may={mayCount} />}
        </div>
      </Form>
      {view && may && <CardEditor card={`counter:${view.name}`} />}
    </>
  );
}

/** The form's field that a place in the settings is about: "counters.2.start" → "start". */
const fieldOf = (where: string | null) => where?.split(".").find((one) => FIELDS.includes(one)) ?? null;

type FieldProps = { id: string; value: string; problem: string | null; onChange: (text: string) => void };

function Field({ id, value, problem, onChange }: FieldProps) {
  const { t } = useTranslation();
  return (
    <Form.Group className="mb-3" controlId={`counter-${id}`}>
      <Form.Label>{t(`stage.counter.${id}`)}</Form.Label>
      <Form.Control
        value={value}
        isInvalid={Boolean(problem)}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
      />
      <Form.Text className={problem ? "text-danger" : ""}>
        {problem ?? t(`stage.counter.${id}Help`)}
      </Form.Text>
    </Form.Group>
  );
}
