import { useEffect, useMemo, useRef, useState } from "react";
import { useForm } from "react-hook-form";
import type { Schemas } from "../../api/client";
import { type Command, type Draft, draftOf, EMPTY, type Kind } from "./types";

type Kept = { draft: Draft; revision: string | null };

/** What one types, kept over a reload, and the revision that the typing began from. */
export function useDraft(kind: Kind, view: Schemas["CommandView"] | null) {
  const saved = useMemo(() => (view ? draftOf(view.command as Command, view.rotas) : EMPTY), [view]);
  const key = `gentlegate.draft.${kind}.${view?.name ?? "+"}`;
  const kept = useMemo(() => readKept(key), [key]);
  const form = useForm<Draft>({ defaultValues: kept?.draft ?? saved });
  const values = form.watch();
  const dirty = JSON.stringify(values) !== JSON.stringify(saved);
  const read = useRef(saved);
  // Another's newer save must not be overwritten unseen.
  const revision = useRef<string | null>(kept ? kept.revision : (view?.revision ?? null));
  const [typedIn, setTypedIn] = useState(0);

  useEffect(() => {
    if (dirty) localStorage.setItem(key, JSON.stringify({ draft: values, revision: revision.current }));
    else localStorage.removeItem(key);
  }, [dirty, key, values]);

  useEffect(() => {
    if (JSON.stringify(form.getValues()) !== JSON.stringify(read.current)) return;
    read.current = saved;
    revision.current = view?.revision ?? null;
    form.reset(saved);
  }, [saved, form, view]);

  const settled = (draft: Draft, now: string) => {
    localStorage.removeItem(key);
    read.current = draft;
    revision.current = now;
  };
  const replace = (draft: Draft) => {
    read.current = draft;
    form.reset(draft);
  };
  return { form, values, saved, dirty, revision, settled, replace, typedIn, setTypedIn };
}

function readKept(key: string): Kept | null {
  try {
    const kept = localStorage.getItem(key);
    if (!kept) return null;
    const { draft, revision } = JSON.parse(kept) as Kept;
    return { draft: { ...EMPTY, ...draft }, revision };
  } catch {
    return null;
  }
}
