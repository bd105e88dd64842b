import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../api/client";
import { useRun } from "./useRun";

type Props = {
  /** Whom it is about; null for the whole team. */
  person: string | null;
  label: string;
  hint: string;
  said?: string;
  onAdded: () => Promise<unknown>;
};

/** A note between moderators; a draft outlasts a reload. */
export function NoteForm({ person, label, hint, said, onAdded }: Props) {
  const { t } = useTranslation();
  const run = useRun();
  const key = `gentlegate.note.${person ?? "team"}`;
  const [text, setText] = useState(() => localStorage.getItem(key) ?? "");
  const write = (words: string) => {
    setText(words);
    if (words) localStorage.setItem(key, words);
    else localStorage.removeItem(key);
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (await run(ask(api.POST("/api/people/notes", { body: { person, text } })), said)) write("");
    await onAdded();
  };
  return (
    <Form className="note-form" onSubmit={(event) => void add(event)}>
      <Form.Control
        size="sm"
        value={text}
        maxLength={1000}
        aria-label={label}
        placeholder={hint}
        onChange={(event) => write(event.target.value)}
      />
      <Button size="sm" type="submit" variant="outline-secondary" disabled={!text.trim()}>
        {t("people.noteAdd")}
      </Button>
    </Form>
  );
}
