import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, ask, Problem } from "../../api/client";
import type { LiveState } from "../../live/reducer";
import { useLive } from "../../ui/useLive";

/** Moves with every line of theirs and whatever is done about one. */
function lifeOf(state: LiveState, keys: string[]): number {
  let seen = 0;
  for (const line of state.lines) if (keys.includes(line.person.key)) seen += 1 + line.marks.length;
  return seen + (state.parts.people ?? 0) * 100_000;
}

/** A person's card, followed while it is open; null where nobody is known by this. */
export function usePerson(person: string) {
  const asked = useQuery({
    queryKey: ["people", "card", person],
    queryFn: async () => {
      try {
        return await ask(api.GET("/api/people/card/{person}", { params: { path: { person } } }));
      } catch (error) {
        if (error instanceof Problem && error.status === 404) return null;
        throw error;
      }
    },
  });
  const keys = asked.data?.accounts.map((one) => one.key) ?? [person];
  const life = useLive((state) => lifeOf(state, keys));
  const said = useQuery({
    queryKey: ["people", "said", person],
    queryFn: () => ask(api.GET("/api/people/card/{person}/messages", { params: { path: { person } } })),
    enabled: Boolean(asked.data),
  });
  const lived = useRef(life);
  const [againCard, againSaid] = [asked.refetch, said.refetch];
  useEffect(() => {
    if (lived.current === life) return;
    lived.current = life;
    void againCard();
    void againSaid();
  }, [life, againCard, againSaid]);
  return { card: asked.data, said: said.data };
}
