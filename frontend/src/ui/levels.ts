/** User levels, low to high. */
export const LEVELS = [
  "everyone",
  "follower",
  "regular",
  "subscriber",
  "vip",
  "moderator",
  "lead",
  "broadcaster",
] as const;
