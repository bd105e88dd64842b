/** Asking the server: typed by its OpenAPI document; problems become thrown Problem objects. */
import createClient from "openapi-fetch";
import i18next from "../words";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Me = Schemas["Me"];

export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly where: string | null,
    readonly theirs: unknown,
    /** The revision of `theirs`, to save over it once it was seen. */
    readonly revision: string | null = null,
  ) {
    super(detail);
  }
}

const client = createClient<paths>({ baseUrl: "" });

/** Told when the server no longer knows who is asking, as after a session's end. */
export const shutOut = { tell: () => {} };
client.use({
  onResponse: ({ response }) => {
    if (response.status === 401 && !response.url.endsWith("/api/session")) shutOut.tell();
  },
});

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer, or a Problem. */
export async function ask<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Problem(0, i18next.t("problems.lost"), null, null);
  }
  if (answer.response.ok) return answer.data as T;
  const problem = (answer.error ?? {}) as {
    detail?: string;
    where?: string;
    theirs?: unknown;
    revision?: string;
  };
  throw new Problem(
    answer.response.status,
    problem.detail ?? i18next.t("problems.lost"),
    problem.where ?? null,
    problem.theirs ?? null,
    problem.revision ?? null,
  );
}

export const api = client;
