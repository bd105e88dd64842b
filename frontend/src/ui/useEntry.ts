import { useEffect, useRef, useState } from "react";
import { Problem } from "../api/client";
import type { Unsaved } from "../live/unsaved";
import { readKept } from "./kept";
import { useHoldUnsaved } from "./useUnsaved";

type Options<Draft, Saved> = {
  /** Under which what is typed is kept over a reload. */
  key: string;
  saved: Draft;
  /** Of what was read; null for a new entry. */
  revision: string | null;
  /** The fields that show their own problem. */
  fields: readonly string[];
  /** What the try-out should reckon with. */
  unsaved: (draft: Draft) => Unsaved[];
  put: (draft: Draft, revision: string | null) => Promise<Saved>;
  onSaved: (saved: Saved) => Promise<void> | void;
};

/** What somebody else saved meanwhile. */
type Theirs = { value: unknown; revision: string | null };
type Kept<Draft> = { typed: Partial<Draft>; from: string | null };

/** The field that a place in the settings is about: "counters.2.start" → "start". */
const fieldOf = (where: string | null, fields: readonly string[]) =>
  where?.split(".").find((one) => fields.includes(one)) ?? null;

/** An entry of the settings while it is changed: what is typed, saving it, and somebody else's newer save. */
export function useEntry<Draft extends object, Saved>(options: Options<Draft, Saved>) {
  const { saved, revision, fields } = options;
  const key = `gentlegate.draft.${options.key}`;
  const kept = useRef(readKept<Kept<Draft>>(key));
  const [typed, setTyped] = useState<Partial<Draft>>(kept.current?.typed ?? {});
  // The revision that the typing began from, so that another's newer save is not overwritten unseen.
  const from = useRef<string | null>(kept.current ? kept.current.from : revision);
  const [problem, setProblem] = useState<{
    field: string | null;
    where: string | null;
    detail: string;
  } | null>(null);
  const [theirs, setTheirs] = useState<Theirs | null>(null);
  const draft = { ...saved, ...typed };
  const dirty = JSON.stringify(draft) !== JSON.stringify(saved);
  useHoldUnsaved(options.key, dirty ? options.unsaved(draft) : []);
  useEffect(() => {
    if (dirty) localStorage.setItem(key, JSON.stringify({ typed, from: from.current }));
    else localStorage.removeItem(key);
  }, [dirty, typed, key]);

  const change = (changes: Partial<Draft>) => {
    if (!dirty) from.current = revision;
    setTyped((before) => ({ ...before, ...changes }));
  };
  const discard = () => {
    setTyped({});
    setProblem(null);
    setTheirs(null);
  };
  const send = async (whole: Draft, over: string | null) => {
    setProblem(null);
    try {
      const now = await options.put(whole, over);
      localStorage.removeItem(key);
      await options.onSaved(now);
      discard();
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.theirs) setTheirs({ value: error.theirs, revision: error.revision });
      else setProblem({ field: fieldOf(error.where, fields), where: error.where, detail: error.detail });
    }
  };
  const save = () => send(draft, from.current);
  /** Save this over what somebody else saved, which was seen. */
  const saveOver = (whole: Draft) => send(whole, theirs?.revision ?? null);
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  return { draft, dirty, change, discard, save, saveOver, problem, wrong, theirs: theirs?.value ?? null };
}
