import { useQuery } from "@tanstack/react-query";
import { api, ask, Problem } from "../api/client";

/** Who is logged in; null where nobody is. */
export function useMe() {
  return useQuery({
    queryKey: ["me"],
    queryFn: async () => {
      try {
        return await ask(api.GET("/api/session"));
      } catch (error) {
        if (error instanceof Problem && error.status === 401) return null;
        throw error;
      }
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
}
