import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, ask, Problem } from "../api/client";
import { readKept } from "./kept";
import { useHoldUnsaved } from "./useUnsaved";

type Values = Record<string, unknown>;
type Kept = { typed: Values; revision: string };

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
const paramsOf = (section: string) => ({ params: { path: { section } } });

/** A section of the settings: what is saved, what is typed over it (kept over a reload), and saving it. */
export function useSection<T extends Values>(section: string) {
  const queries = useQueryClient();
  const key = `gentlegate.draft.section.${section}`;
  const kept = useRef(readKept<Kept>(key));
  const { data } = useQuery({
    queryKey: ["section", section],
    queryFn: () => ask(api.GET("/api/sections/{section}", paramsOf(section))),
  });
  const [typed, setTyped] = useState<Partial<T>>((kept.current?.typed as Partial<T>) ?? {});
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const [theirs, setTheirs] = useState<{ values: T; revision: string } | null>(null);
  // The revision that the typing began from, so that another's newer save is not overwritten unseen.
  const from = useRef<string | null>(kept.current?.revision ?? null);
  const saved = data?.values as T | undefined;
  const values = saved ? { ...saved, ...typed } : undefined;
  const changed = saved ? Object.keys(typed).filter((field) => !same(typed[field], saved[field])) : [];
  const dirty = changed.length > 0;
  useHoldUnsaved(
    section,
    changed.map((field) => ({ path: `${section}.${field}`, value: typed[field] ?? null })),
  );
  useEffect(() => {
    if (!dirty) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify({ typed, revision: from.current }));
  }, [dirty, typed, key]);

  const change = (changes: Partial<T>) => {
    if (!dirty) from.current = data?.revision ?? null;
    setTyped((before) => ({ ...before, ...changes }));
  };
  const discard = () => {
    setTyped({});
    setProblem(null);
    setTheirs(null);
  };
  const pick = (from: Partial<T>) => Object.fromEntries(changed.map((field) => [field, from[field]]));
  /** Saves; true where it was taken. */
  const save = () => send(pick(typed), from.current ?? data?.revision ?? "");
  /** Saves these over what somebody else saved, which was seen. */
  const saveOver = (mix: unknown) => send(pick(mix as T), theirs?.revision ?? "");
  const send = async (sent: Values, revision: string): Promise<boolean> => {
    setProblem(null);
    try {
      await ask(
        api.PUT("/api/sections/{section}", { ...paramsOf(section), body: { values: sent, revision } }),
      );
      await queries.invalidateQueries({ queryKey: ["section", section] });
      discard();
      return true;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.theirs) setTheirs({ values: error.theirs as T, revision: error.revision ?? "" });
      else setProblem({ field: error.where?.split(".")[1] ?? null, detail: error.detail });
      return false;
    }
  };
  const wrong = (field: string) => (problem?.field === field ? problem.detail : null);
  return {
    name: section,
    saved,
    values,
    dirty,
    change,
    discard,
    save,
    saveOver,
    problem,
    wrong,
    theirs: theirs?.values ?? null,
  };
}
