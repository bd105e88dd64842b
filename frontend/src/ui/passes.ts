/** The lengths of a pass, as the server takes them. */
export const PASSES = ["2m", "10m", "stream"];
