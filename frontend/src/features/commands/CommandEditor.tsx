import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { useTelling } from "../../ui/Notice";
import { Preview } from "../../ui/Preview";
import { SaveRow } from "../../ui/SaveRow";
import { usePreview } from "../../ui/usePreview";
import { useHoldUnsaved } from "../../ui/useUnsaved";
import { addressOf } from "./addresses";
import { CueFields } from "./CueFields";
import { History } from "./History";
import { MoreFields } from "./MoreFields";
import { Replies } from "./Replies";
import { wholeWords } from "./sentences";
import { type Command, type Cooldown, commandOf, draftOf, type Kind } from "./types";
import { useDraft } from "./useDraft";

type Props = {
  kind?: Kind;
  view: Schemas["CommandView"] | null;
  all: Schemas["Commands"] | undefined;
  may: boolean;
  onRemove?: () => void;
};

/** Two fields, then depth: a name and a reply; the rest is folded into sentences. */
export function CommandEditor({ kind = "command", view, all, may, onRemove }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { tell } = useTelling();
  const cue = kind === "cue";
  const { form, values, saved, dirty, revision, settled, replace, typedIn, setTypedIn } = useDraft(
    kind,
    view,
  );
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const [theirs, setTheirs] = useState<{ command: Command; revision: string | null } | null>(null);
  const before = (view?.command as Command) ?? null;
  const name = values.name.trim();
  const preview = usePreview({
    reply: values.reply[typedIn] ?? values.reply[0] ?? "",
    was: view?.name ?? null,
    name: cue ? "" : name,
    aliases: cue ? [] : values.aliases,
  });
  const section = cue ? "cues" : "commands";
  const unsaved =
    dirty && name ? [{ path: `${section}.${view?.name ?? name}`, value: commandOf(values, before) }] : [];
  useHoldUnsaved(`${kind} ${view?.name ?? "+"}`, unsaved);

  const save = async (command: Command, from: string | null, rotas: string[] | null) => {
    const path = { name: view?.name ?? (command.name || "+") };
    const asked = { params: { path }, body: { command, revision: from, rotas } };
    return ask(cue ? api.PUT("/api/cues/{name}", asked) : api.PUT("/api/commands/{name}", asked));
  };

  const send = async (from: string | null, draft = form.getValues()) => {
    setProblem(null);
    try {
      const now = await save(commandOf(draft, before), from, cue ? null : draft.rotas);
      settled(draft, now.revision);
      setTheirs(null);
      await queries.invalidateQueries({ queryKey: ["commands"] });
      tell(t("commands.saved"));
      if (now.name !== view?.name) navigate(addressOf(kind, now.name));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.theirs) setTheirs({ command: error.theirs as Command, revision: error.revision });
      else setProblem({ field: fieldOf(error.where), detail: error.detail });
    }
  };

  const keep = async (whole: Command) => {
    const draft = draftOf(whole, values.rotas);
    form.reset(draft);
    await send(theirs?.revision ?? null, draft);
  };
  const takeTheirs = async () => {
    if (theirs) replace(draftOf(theirs.command, values.rotas));
    setTheirs(null);
    await queries.invalidateQueries({ queryKey: ["commands"] });
  };
  const revert = async (version: Record<string, unknown>) => {
    try {
      const now = await save(version as Command, view?.revision ?? null, null);
      await queries.invalidateQueries();
      tell(t("history.reverted"));
      if (now.name !== view?.name) navigate(addressOf(kind, now.name));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem({ field: fieldOf(error.where), detail: error.detail });
    }
  };

  const prefix = all?.prefix ?? "!";
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  const clash = wrong("name") ?? (dirty ? preview.data?.clash : null) ?? null;
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
        <AlsoEditing place={`${section}.${view?.name ?? name}`} />
      </div>
      {!may && <p className="quiet">{t("commands.readOnly")}</p>}
      <div className="two-sides">
        <div>
          <fieldset disabled={!may}>
            <Form.Group className="mb-3" controlId="command-name">
              <Form.Label>{t("commands.name")}</Form.Label>
              <Form.Control {...form.register("name")} isInvalid={Boolean(clash)} autoComplete="off" />
              <Form.Text className={clash ? "text-danger" : ""}>
                {clash ?? (cue ? t("cues.nameHelp") : t("commands.nameHelp", { prefix }))}
              </Form.Text>
            </Form.Group>
            {cue && <CueFields form={form} problem={wrong("hears")} />}
            <Replies
              form={form}
              problem={wrong("reply")}
              counters={all?.counters ?? []}
              at={typedIn}
              onFocus={setTypedIn}
            />
            <p className="sentence">{wholeWords(t, values, (all?.cooldown ?? "default") as Cooldown)}</p>
            <MoreFields form={form} all={all} problem={problem} cue={cue} />
            <SaveRow
              dirty={dirty}
              problem={problem && !problem.field ? problem.detail : null}
              mine={commandOf(values, before)}
              theirs={theirs?.command}
              onKeep={(whole) => void keep(whole as Command)}
              onTakeTheirs={() => void takeTheirs()}
              onDiscard={() => form.reset(saved)}
              may={may}
            >
              {onRemove && (
                <Button variant="outline-danger" onClick={onRemove}>
                  {t("commands.remove")}
                </Button>
              )}
            </SaveRow>
          </fieldset>
        </div>
        <div>
          <Preview reply={values.reply[typedIn] ?? values.reply[0] ?? ""} found={preview.data} />
          {view && (
            <History
              section={section}
              name={view.name}
              onRevert={may && !dirty ? (version) => void revert(version) : undefined}
            />
          )}
        </div>
      </div>
    </Form>
  );
}

const FIELDS = ["name", "hears", "reply", "aliases", "cooldown", "needs", "counts", "platforms", "refusals"];

/** The editor's field that a place in the settings is about: "commands.3.cooldown.everyone" → "cooldown". */
function fieldOf(where: string | null): string | null {
  return where?.split(".").find((one) => FIELDS.includes(one)) ?? null;
}
