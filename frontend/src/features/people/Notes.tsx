import { useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { NoteForm } from "../../ui/NoteForm";
import { useTelling } from "../../ui/Notice";
import { when } from "../../ui/time";

type Props = {
  /** Whom they are about. */
  person: string;
  notes: Schemas["NoteView"][];
  mayNote: boolean;
  /** Whether others' notes may be taken away too. */
  mayAll: boolean;
};

/** What moderators note for each other, each with author and date. */
export function Notes({ person, notes, mayNote, mayAll }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const again = () => queries.invalidateQueries({ queryKey: ["people"] });
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
        <NoteForm person={person} label={t("people.noteLabel")} hint={t("people.noteHint")} onAdded={again} />
      )}
    </section>
  );
}
