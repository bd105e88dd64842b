import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ask, type Schemas } from "../api/client";

export type Used = NonNullable<Schemas["PreviewReply"]["used"]>;

/** A value that follows after a short rest. */
export function useRested<T>(value: T, rest = 250): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), rest);
    return () => clearTimeout(timer);
  }, [value, rest]);
  return rested;
}

/** What the server says of a reply while one types: how it would read on each platform, and whether its names are free. */
export function usePreview(asked: Partial<Schemas["PreviewReply"]> & { reply: string }) {
  const rested = useRested(JSON.stringify(asked));
  return useQuery({
    queryKey: ["preview", rested],
    queryFn: () =>
      ask(api.POST("/api/commands/preview", { body: JSON.parse(rested) as Schemas["PreviewReply"] })),
    placeholderData: keepPreviousData,
  });
}
