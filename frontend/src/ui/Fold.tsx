import { type ReactNode, useId, useState } from "react";

type Props = {
  title: string;
  /** What holds now, in a plain sentence. */
  says: string;
  /** Opened because something in it needs looking at. */
  open?: boolean;
  children: ReactNode;
};

/** A part of a form, folded into its sentence until it is wanted. */
export function Fold({ title, says, open = false, children }: Props) {
  const id = useId();
  const [wanted, setWanted] = useState(false);
  const shown = wanted || open;
  return (
    <div className="fold-row">
      <button type="button" aria-expanded={shown} aria-controls={id} onClick={() => setWanted(!shown)}>
        <b>{title}</b>
        <span>{says}</span>
      </button>
      {shown && (
        <div id={id} className="fold-body">
          {children}
        </div>
      )}
    </div>
  );
}
