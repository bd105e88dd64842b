import { useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { LEVELS } from "../../ui/levels";
import { useTelling } from "../../ui/Notice";
import { SaveRow } from "../../ui/SaveRow";
import { spanWords } from "../../ui/time";
import { useEntry } from "../../ui/useEntry";
import { useLive } from "../../ui/useLive";
import { useTakeBack } from "../../ui/useTakeBack";
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
  const reread = async () => {
    await queries.invalidateQueries({ queryKey: ["counters"] });
    await queries.invalidateQueries({ queryKey: ["cards"] });
  };
  const entry = useEntry<CounterDraft, Schemas["CommandView"]>({
    key: `counter.${view?.name ?? "+"}`,
    saved,
    revision: view?.revision ?? null,
    fields: FIELDS,
    unsaved: (draft) => {
      const name = view?.name ?? draft.name.trim();
      return name ? [{ path: `counters.${name}`, value: counterOf(draft, before) }] : [];
    },
    put: (draft, revision) => {
      const params = { path: { name: view?.name ?? (draft.name.trim() || "+") } };
      return ask(
        api.PUT("/api/counters/{name}", { params, body: { command: counterOf(draft, before), revision } }),
      );
    },
    onSaved: async (now) => {
      await reread();
      tell(t("stage.counterSaved", { command: `${prefix}count ${now.name}` }));
      if (!view) navigate(`/stage/counter/${encodeURIComponent(now.name)}`);
    },
  });
  const { draft, dirty, change, wrong, problem } = entry;
  const label = saved.label || view?.name || "";
  const remove = async () => {
    if (!view) return;
    try {
      const params = { path: { name: view.name }, query: { revision: view.revision } };
      const gone = await ask(api.DELETE("/api/counters/{name}", { params }));
      await reread();
      navigate("/stage");
      tell(t("stage.counterRemoved", { label }), {
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
          void entry.save();
        }}
      >
        <div className="chosen-head">
          <h2 className="room-title">{view ? label : t("stage.newCounter")}</h2>
          {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
          <AlsoEditing place={`counters.${view?.name ?? "+"}`} />
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
            <SaveRow
              dirty={dirty}
              problem={problem && !problem.field ? problem.detail : null}
              mine={counterOf(draft, before)}
              theirs={entry.theirs}
              onKeep={(whole) => void entry.saveOver(draftOf(whole as Counter))}
              onDiscard={entry.discard}
              may={may}
            >
              {view && (
                <Button variant="outline-danger" onClick={() => void remove()}>
                  {t("stage.removeCounter")}
                </Button>
              )}
            </SaveRow>
          </fieldset>
          {view && <CounterSteps name={view.name} may={mayCount} />}
        </div>
      </Form>
      {view && may && <CardEditor card={`counter:${view.name}`} />}
    </>
  );
}

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
