/** The rooms in their order: path and name. */
export const ROOMS = [
  ["/", "desk"],
  ["/rules", "rules"],
  ["/commands", "commands"],
  ["/timers", "timers"],
  ["/stage", "stage"],
  ["/people", "people"],
  ["/records", "records"],
  ["/setup", "setup"],
] as const;
