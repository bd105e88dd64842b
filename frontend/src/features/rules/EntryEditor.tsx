import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { type Entry, entryText, plainEntry } from "./entries";

type Props = {
  entry: Entry;
  phrase: boolean;
  onDone: (entry: Entry) => void;
  onClose: () => void;
};

const STEPS = ["nudge", "remove", "timeout", "ban"];

/** One entry of a list with all that can be said of it. */
export function EntryEditor({ entry, phrase, onDone, onClose }: Props) {
  const { t } = useTranslation();
  const [draft, setDraft] = useState<Exclude<Entry, string>>(
    typeof entry === "string" ? { text: entry } : entry,
  );
  const change = (more: Partial<typeof draft>) => setDraft((before) => ({ ...before, ...more }));
  return (
    <div className="entry-editor">
      <Form.Control
        size="sm"
        value={draft.text}
        aria-label={entryText(entry)}
        onChange={(event) => change({ text: event.target.value })}
      />
      <div className="d-flex flex-wrap gap-2 align-items-center">
        {phrase && (
          <Form.Select
            size="sm"
            className="w-auto"
            value={draft.mode ?? "word"}
            aria-label={t("rules.modeFor")}
            onChange={(event) => change({ mode: event.target.value })}
          >
            {["word", "anywhere", "pattern"].map((mode) => (
              <option key={mode} value={mode}>
                {t(`rules.modes.${mode}`)}
              </option>
            ))}
          </Form.Select>
        )}
        <Form.Select
          size="sm"
          className="w-auto"
          value={draft.step ?? ""}
          aria-label={t("rules.then")}
          onChange={(event) => change({ step: event.target.value || null })}
        >
          <option value="">{phrase ? t("rules.ladder") : t("rules.steps.timeout")}</option>
          {STEPS.map((step) => (
            <option key={step} value={step}>
              {t(`rules.steps.${step}`)}
            </option>
          ))}
        </Form.Select>
        {draft.step === "timeout" && (
          <Form.Control
            size="sm"
            className="own-length"
            placeholder="10m"
            value={String(draft.seconds ?? "")}
            aria-label={t("rules.seconds")}
            onChange={(event) => change({ seconds: event.target.value })}
          />
        )}
        {phrase && (
          <Form.Check
            id="entry-plain"
            label={t("rules.entryPlain")}
            checked={draft.disguised === false}
            onChange={(event) => change({ disguised: !event.target.checked })}
          />
        )}
        <Button size="sm" onClick={() => onDone(plainEntry(draft))} disabled={!draft.text.trim()}>
          {t("rules.entryDone")}
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={onClose}>
          {t("desk.close")}
        </Button>
      </div>
    </div>
  );
}
