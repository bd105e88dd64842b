import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { when } from "../../ui/time";

type Props = {
  /** Whom they are about; null for the whole team. */
  person: string | null;
  notes: Schemas["NoteView"][];
  mayNote: boolean;
  /** Whether others' notes may be taken away too. */
  mayAll: boolean;
};

/** What moderators note for each other, each with author and date; a draft outlasts a reload. */
export function Notes({ person, notes, mayNote, mayAll }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const key = `gentlegate.note.${person ?? "team"}`;
  const [text, setText] = useState(() => localStorage.getItem(key) ?? "");
  const write = (words: string) => {
    setText(words);
    if (words) localStorage.setItem(key, words);
    else localStorage.removeItem(key);
  };
  const again = () => queries.invalidateQueries({ queryKey: ["people"] });
  const add = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await ask(api.POST("/api/people/notes", { body: { person, text } }));
      write("");
    } catch (error) {
      complain(error);
    }
    await again();
  };
  const keep = async (id: number, gone: boolean) => {
    try {
      await ask(api.PUT("/api/people/notes/{id}", { params: { path: { id } }, body: { gone } }));
      if (gone) tell(t("people.noteGone"), { label: t("people.noteBack"), run: () => void keep(id, false) });
    } catch (error) {
      complain(error);
    }
    await again();
  };
  return (
    <section className="notes">
      <h3>{t("people.notes")}</h3>
      {notes.map((note) => (
        <blockquote key={note.id} data-note={note.id}>
          <p>{note.text}</p>
          <footer className="quiet small">
            {t("people.noteBy", { who: note.by, when: when(note.at) })}
            {(note.mine || mayAll) && (
              <button type="button" className="link" onClick={() => void keep(note.id, true)}>
                {t("people.noteAway")}
              </button>
            )}
          </footer>
        </blockquote>
      ))}
      {mayNote && (
        <Form className="note-form" onSubmit={(event) => void add(event)}>
          <Form.Control
            size="sm"
            value={text}
            maxLength={1000}
            aria-label={t("people.noteLabel")}
            placeholder={t("people.noteHint")}
            onChange={(event) => write(event.target.value)}
          />
          <Button size="sm" type="submit" variant="outline-secondary" disabled={!text.trim()}>
            {t("people.noteAdd")}
          </Button>
        </Form>
      )}
    </section>
  );
}
