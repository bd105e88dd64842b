import { useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { useTelling } from "./Notice";

/** Takes back changes that were made in one go; what goes wrong is said, and nothing is given then. */
export function useTakeBack() {
  const queries = useQueryClient();
  const { complain } = useTelling();
  return async (number: number): Promise<Schemas["BatchDone"] | null> => {
    const done = await ask(api.POST("/api/kits/take-back", { body: { number } })).catch((error) => {
      complain(error);
      return null;
    });
    await queries.invalidateQueries();
    return done;
  };
}
