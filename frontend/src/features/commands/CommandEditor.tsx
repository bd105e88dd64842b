import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { type UseFormReturn, useForm } from "react-hook-form";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { spanWords } from "../../ui/time";
import { CueFields } from "./CueFields";
import { MoreFields } from "./MoreFields";
import { Preview } from "./Preview";
import { type Command, commandOf, type Draft, draftOf, EMPTY, type Kind } from "./types";

type Props = {
  kind?: Kind;
  view: Schemas["CommandView"] | null;
  all: Schemas["Commands"] | undefined;
  may: boolean;
  onRemove?: () => void;
};

const VARIABLES = ["person.name", "args", "uses", "stream.title", "stream.uptime", "channel", "now | time"];

/** Two fields, then depth: a name and a reply; the rest is folded away with a sentence. */
export function CommandEditor({ kind = "command", view, all, may, onRemove }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { tell } = useTelling();
  const saved = useMemo(() => (view ? draftOf(view.command as Command) : EMPTY), [view]);
  const cue = kind === "cue";
  const draftKey = `gentlegate.draft.${kind}.${view?.name ?? "+"}`;
  const kept = useMemo(() => readDraft(draftKey), [draftKey]);
  const form = useForm<Draft>({ defaultValues: kept?.draft ?? saved });
  const values = form.watch();
  const dirty = JSON.stringify(values) !== JSON.stringify(saved);
  const [problem, setProblem] = useState<{ where: string | null; detail: string } | null>(null);
  const [theirs, setTheirs] = useState<Command | null>(null);
  const read = useRef(saved);
  // The revision that the typing began from: another's newer save must not be overwritten unseen.
  const revision = useRef<string | null>(kept ? kept.revision : (view?.revision ?? null));

  useEffect(() => {
    if (dirty) localStorage.setItem(draftKey, JSON.stringify({ draft: values, revision: revision.current }));
    else localStorage.removeItem(draftKey);
  }, [dirty, draftKey, values]);

  useEffect(() => {
    if (JSON.stringify(form.getValues()) !== JSON.stringify(read.current)) return;
    read.current = saved;
    revision.current = view?.revision ?? null;
    form.reset(saved);
  }, [saved, form, view]);

  const send = async (from: string | null) => {
    const draft = form.getValues();
    const command = commandOf(draft, (view?.command as Command) ?? null);
    setProblem(null);
    try {
      const path = { name: view?.name ?? (command.name || "+") };
      const asked = { params: { path }, body: { command, revision: from } };
      const now = await ask(
        cue ? api.PUT("/api/cues/{name}", asked) : api.PUT("/api/commands/{name}", asked),
      );
      localStorage.removeItem(draftKey);
      setTheirs(null);
      read.current = draft;
      revision.current = now.revision;
      await queries.invalidateQueries({ queryKey: ["commands"] });
      tell(t("commands.saved"));
      if (now.name !== view?.name) navigate(`/commands/${encodeURIComponent((cue ? "~" : "") + now.name)}`);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.theirs) setTheirs(error.theirs as Command);
      else setProblem({ where: error.where, detail: error.detail });
    }
  };

  const keepMine = async () => {
    const fresh = await ask(api.GET("/api/commands"));
    const views = cue ? fresh.cues : fresh.commands;
    await send(views.find((one) => one.name === view?.name)?.revision ?? null);
  };
  const takeTheirs = async () => {
    if (theirs) {
      read.current = draftOf(theirs);
      form.reset(read.current);
    }
    setTheirs(null);
    await queries.invalidateQueries({ queryKey: ["commands"] });
  };

  const prefix = all?.prefix ?? "!";
  const field = fieldOf(problem?.where ?? null);
  return (
    <Form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        // Leaving the field that is being typed in commits its list first.
        if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
        setTimeout(() => void send(revision.current));
      }}
    >
      <div className="chosen-head">
        <h2 className="room-title">
          {view ? `${cue ? "" : prefix}${view.name}` : t(cue ? "cues.new" : "commands.new")}
        </h2>
        {dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
      </div>
      {!may && <p className="quiet">{t("commands.readOnly")}</p>}
      <fieldset disabled={!may} className="two-sides">
        <div>
          <Form.Group className="mb-3" controlId="command-name">
            <Form.Label>{t("commands.name")}</Form.Label>
            <Form.Control {...form.register("name")} isInvalid={field === "name"} autoComplete="off" />
            <Form.Text className={field === "name" ? "text-danger" : ""}>
              {field === "name"
                ? problem?.detail
                : cue
                  ? t("cues.nameHelp")
                  : t("commands.nameHelp", { prefix })}
            </Form.Text>
          </Form.Group>
          {cue && <CueFields form={form} problem={field === "hears" ? (problem?.detail ?? null) : null} />}
          <Replies form={form} problem={field === "reply" ? (problem?.detail ?? null) : null} />
          <Sentence draft={values} all={all} />
          <MoreFields form={form} problem={problem} field={field} cue={cue} />
          {problem && !field && <Alert variant="danger">{problem.detail}</Alert>}
          {theirs && (
            <Conflict
              mine={values}
              theirs={theirs}
              onMine={() => void keepMine()}
              onTheirs={() => void takeTheirs()}
            />
          )}
          {may && (
            <div className="d-flex gap-2 align-items-center">
              <Button type="submit" disabled={!dirty}>
                {t("commands.save")}
              </Button>
              {dirty && (
                <Button variant="outline-secondary" onClick={() => form.reset(saved)}>
                  {t("commands.discard")}
                </Button>
              )}
              <span className="flex-grow-1" />
              {onRemove && (
                <Button variant="outline-danger" onClick={onRemove}>
                  {t("commands.remove")}
                </Button>
              )}
            </div>
          )}
        </div>
        <Preview reply={values.reply[0] ?? ""} />
      </fieldset>
    </Form>
  );
}

type Kept = { draft: Draft; revision: string | null };

function readDraft(key: string): Kept | null {
  try {
    const kept = localStorage.getItem(key);
    if (!kept) return null;
    const { draft, revision } = JSON.parse(kept) as Kept;
    return { draft: { ...EMPTY, ...draft }, revision };
  } catch {
    return null;
  }
}

/** The editor's field that a place in the settings is about: "commands.3.cooldown.everyone" → "cooldown". */
function fieldOf(where: string | null): string | null {
  if (!where) return null;
  const part = where
    .split(".")
    .find((one) => ["name", "hears", "reply", "aliases", "cooldown", "needs"].includes(one));
  return part ?? null;
}

function Replies({ form, problem }: { form: UseFormReturn<Draft>; problem: string | null }) {
  const { t } = useTranslation();
  const replies = form.watch("reply");
  const insert = (variable: string) => {
    const first = replies[0] ?? "";
    form.setValue("reply.0", `${first}${first && !first.endsWith(" ") ? " " : ""}{{ ${variable} }}`);
  };
  return (
    <>
      {replies.map((_, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a reply is its place in the list
        <Form.Group className="mb-2" controlId={`command-reply-${index}`} key={index}>
          <Form.Label>{index ? t("commands.replyN", { n: index + 1 }) : t("commands.reply")}</Form.Label>
          <Form.Control
            as="textarea"
            rows={3}
            {...form.register(`reply.${index}`)}
            isInvalid={Boolean(problem)}
          />
          {index === 0 && (
            <Form.Text className={problem ? "text-danger" : ""}>
              {problem ?? t("commands.replyHelp")}
            </Form.Text>
          )}
          {index > 0 && (
            <Button
              variant="link"
              size="sm"
              onClick={() =>
                form.setValue(
                  "reply",
                  replies.filter((__, other) => other !== index),
                )
              }
            >
              {t("commands.dropReply")}
            </Button>
          )}
        </Form.Group>
      ))}
      <div className="variables">
        <span className="quiet">{t("commands.insert")}</span>
        {VARIABLES.map((variable) => (
          <button type="button" key={variable} onClick={() => insert(variable)} title={`{{ ${variable} }}`}>
            {t("commands.variables", { returnObjects: true })[variable as never]}
          </button>
        ))}
        <button type="button" onClick={() => form.setValue("reply", [...replies, ""])}>
          + {t("commands.addReply")}
        </button>
      </div>
    </>
  );
}

function Sentence({ draft, all }: { draft: Draft; all: Schemas["Commands"] | undefined }) {
  const { t } = useTranslation();
  const usual = all?.cooldown as { everyone?: string | number } | string | undefined;
  const span = draft.cooling === "own" ? draft.everyone : typeof usual === "object" ? usual.everyone : "";
  const cooldown =
    draft.cooling === "none" || !span
      ? t("commands.coolNone")
      : t("commands.coolEveryone", { time: spanWords(t, span) });
  return (
    <p className="sentence">{t("commands.defaults", { who: t(`levelsUp.${draft.level}`), cooldown })}</p>
  );
}

function Conflict({
  mine,
  theirs,
  onMine,
  onTheirs,
}: {
  mine: Draft;
  theirs: Command;
  onMine: () => void;
  onTheirs: () => void;
}) {
  const { t } = useTranslation();
  const other = draftOf(theirs);
  const fields = (
    [
      "hears",
      "match",
      "where",
      "reply",
      "aliases",
      "level",
      "cooling",
      "everyone",
      "person",
      "mode",
      "when",
      "folder",
      "on",
    ] as const
  ).filter((field) => JSON.stringify(mine[field]) !== JSON.stringify(other[field]));
  return (
    <Alert variant="warning">
      <p>{t("commands.theirs")}</p>
      <table className="sides">
        <thead>
          <tr>
            <td />
            <th>{t("commands.mine")}</th>
            <th>{t("commands.other")}</th>
          </tr>
        </thead>
        <tbody>
          {fields.map((field) => (
            <tr key={field}>
              <th>{t(`commands.fields.${field}`)}</th>
              <td>{String(mine[field])}</td>
              <td>{String(other[field])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="d-flex gap-2">
        <Button size="sm" onClick={onMine}>
          {t("commands.keepMine")}
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={onTheirs}>
          {t("commands.takeTheirs")}
        </Button>
      </div>
    </Alert>
  );
}
