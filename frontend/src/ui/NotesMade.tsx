import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { when } from "./time";

type Props = {
  notes: Schemas["NoteView"][];
  /** The names of those whom notes are about, by their person string. */
  names: Record<string, string>;
};

/** Notes to read: about whom, by whom and when. */
export function NotesMade({ notes, names }: Props) {
  const { t } = useTranslation();
  return (
    <div className="notes">
      {notes.map((note) => (
        <blockquote key={note.id}>
          <p>
            {note.person && (
              <Link to={`/people/card/${encodeURIComponent(note.person)}`}>
                {names[note.person] ?? note.person}
              </Link>
            )}{" "}
            {note.text}
          </p>
          <footer className="quiet small">{t("people.noteBy", { who: note.by, when: when(note.at) })}</footer>
        </blockquote>
      ))}
    </div>
  );
}
