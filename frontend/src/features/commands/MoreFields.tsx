import { Form } from "react-bootstrap";
import type { UseFormReturn } from "react-hook-form";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Choice";
import { Fold } from "../../ui/Fold";
import { ListField } from "../../ui/ListField";
import { CountFields } from "./CountFields";
import { LeaveFolds } from "./LeaveFolds";
import { countWords, whereWords } from "./sentences";
import type { Cooldown, Draft } from "./types";

type Props = {
  form: UseFormReturn<Draft>;
  all: Schemas["Commands"] | undefined;
  problem: { field: string | null; detail: string } | null;
  cue: boolean;
};

/** Everything about a command that its name and reply are not: each part folded into its sentence. */
export function MoreFields({ form, all, problem, cue }: Props) {
  const { t } = useTranslation();
  const draft = form.watch();
  const change = (changes: Partial<Draft>) => {
    for (const [key, value] of Object.entries(changes)) form.setValue(key as keyof Draft, value as never);
  };
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  const platforms = all?.platforms ?? [];
  const usual = (all?.cooldown ?? "default") as Cooldown;
  return (
    <div className="folds">
      <LeaveFolds leave={draft} usual={usual} platforms={platforms} problem={problem} onChange={change} />
      <Fold title={t("commands.where")} says={whereWords(t, draft)} open={Boolean(wrong("platforms"))}>
        <Ticks
          label={t("commands.platforms")}
          help={t("commands.platformsHelp")}
          all={platforms}
          chosen={draft.platforms}
          words={(one) => t(`platforms.${one}`, { defaultValue: one })}
          onChange={(chosen) => change({ platforms: chosen })}
        />
        <Choice
          id="choice-when"
          label={t("commands.when")}
          value={draft.when}
          values={["always", "live", "offline"]}
          words={(one) => t(`commands.whens.${one}`)}
          onChange={(when) => change({ when: when as Draft["when"] })}
        />
      </Fold>
      <HowItAnswers draft={draft} cue={cue} change={change} />
      {!cue && (
        <Fold
          title={t("commands.aliases")}
          says={draft.aliases.join(", ") || t("sentences.noAlias")}
          open={Boolean(wrong("aliases"))}
        >
          <ListField
            label={t("commands.aliases")}
            help={t("commands.aliasesHelp")}
            items={draft.aliases}
            onChange={(aliases) => change({ aliases })}
            problem={wrong("aliases")}
          />
        </Fold>
      )}
      <Fold title={t("commands.counts")} says={countWords(t, draft.counts)} open={Boolean(wrong("counts"))}>
        <CountFields
          counts={draft.counts}
          counters={all?.counters ?? []}
          problem={wrong("counts")}
          onChange={(counts) => change({ counts })}
        />
      </Fold>
      {!cue && (
        <Fold
          title={t("commands.rotas")}
          says={draft.rotas.length ? draft.rotas.join(", ") : t("sentences.noRota")}
        >
          <Ticks
            label={t("commands.rotas")}
            help={all?.rotas.length ? t("commands.rotasHelp") : t("commands.noRotas")}
            all={all?.rotas ?? []}
            chosen={draft.rotas}
            words={(one) => one}
            onChange={(rotas) => change({ rotas })}
          />
        </Fold>
      )}
      <Fold
        title={t("commands.note")}
        says={[draft.folder, draft.note].filter(Boolean).join(" · ") || t("sentences.noNote")}
      >
        <Form.Group className="mb-3" controlId="command-folder">
          <Form.Label>{t("commands.folder")}</Form.Label>
          <Form.Control {...form.register("folder")} />
        </Form.Group>
        <Form.Group className="mb-3" controlId="command-note">
          <Form.Label>{t("commands.noteLabel")}</Form.Label>
          <Form.Control as="textarea" rows={2} {...form.register("note")} />
        </Form.Group>
      </Fold>
    </div>
  );
}

type AnswerProps = { draft: Draft; cue: boolean; change: (changes: Partial<Draft>) => void };

/** Aloud or not, where, which of several replies, and what it says when it refuses. */
function HowItAnswers({ draft, cue, change }: AnswerProps) {
  const { t } = useTranslation();
  const refuses = !cue && (draft.refuseLevel || draft.refuseCooldown);
  const says = [
    t(draft.privateOnly ? "commands.privateOnly" : `commands.modes.${draft.mode}`),
    ...(draft.answerOn === "all" ? [t("sentences.onAll")] : []),
    ...(draft.reply.length > 1 ? [t(`commands.chooses.${draft.choose}`)] : []),
    ...(refuses ? [t("sentences.saysNo")] : []),
  ];
  const text = (key: "refuseLevel" | "refuseCooldown") => (
    <Form.Group className="mb-3" controlId={key}>
      <Form.Label>{t(`commands.${key}`)}</Form.Label>
      <Form.Control
        value={draft[key]}
        placeholder={t("commands.silent")}
        onChange={(event) => change({ [key]: event.target.value })}
      />
    </Form.Group>
  );
  return (
    <Fold title={t("commands.mode")} says={says.join(", ")}>
      <div className="pair">
        <Choice
          id="choice-mode"
          label={t("commands.mode")}
          value={draft.mode}
          values={["say", "reply", "private"]}
          words={(one) => t(`commands.modes.${one}`)}
          onChange={(mode) => change({ mode: mode as Draft["mode"] })}
        />
        <Choice
          id="choice-answer-on"
          label={t("commands.answerOn")}
          value={draft.answerOn}
          values={["same", "all"]}
          words={(one) => t(`commands.answers.${one}`)}
          onChange={(answerOn) => change({ answerOn: answerOn as Draft["answerOn"] })}
        />
        {draft.reply.length > 1 && (
          <Choice
            id="choice-choose"
            label={t("commands.choose")}
            value={draft.choose}
            values={["in turn", "shuffled", "first"]}
            words={(one) => t(`commands.chooses.${one}`)}
            onChange={(choose) => change({ choose: choose as Draft["choose"] })}
          />
        )}
      </div>
      {!cue && (
        <>
          <Form.Check
            type="switch"
            id="private-only"
            className="mb-3"
            label={t("commands.privateOnlyHelp")}
            checked={draft.privateOnly}
            onChange={(event) => change({ privateOnly: event.target.checked })}
          />
          {text("refuseLevel")}
          {text("refuseCooldown")}
        </>
      )}
    </Fold>
  );
}

type TicksProps = {
  label: string;
  help: string;
  all: string[];
  chosen: string[];
  words: (one: string) => string;
  onChange: (chosen: string[]) => void;
};

/** Some of a few. */
function Ticks({ label, help, all, chosen, words, onChange }: TicksProps) {
  return (
    <fieldset className="ticks mb-3">
      <legend className="form-label">{label}</legend>
      {all.map((one) => (
        <Form.Check
          key={one}
          id={`tick-${label}-${one}`}
          label={words(one)}
          checked={chosen.includes(one)}
          onChange={(event) =>
            onChange(
              event.target.checked
                ? all.filter((other) => other === one || chosen.includes(other))
                : chosen.filter((other) => other !== one),
            )
          }
        />
      ))}
      <Form.Text>{help}</Form.Text>
    </fieldset>
  );
}
