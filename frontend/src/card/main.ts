/** The stage card's page: shows one live thing on a transparent ground and opens its connection again by itself. */
import { WebSocket as Reconnecting } from "partysocket";
import { type CardState, draw } from "./draw";

const NO_SUCH_KEY = 4401;
const card = document.getElementById("card");
const key = new URLSearchParams(location.search).get("key") ?? "";
const scheme = location.protocol === "https:" ? "wss" : "ws";
const address = `${scheme}://${location.host}/api/stage-card?key=${encodeURIComponent(key)}`;
const socket = new Reconnecting(address, [], { minReconnectionDelay: 300, maxReconnectionDelay: 5000 });
socket.addEventListener("message", (event: MessageEvent) => {
  if (card) draw(card, JSON.parse(String(event.data)) as CardState);
});
socket.addEventListener("close", (event) => {
  // What was shown last stays while the gate is away; a key that was renewed shows nothing any more.
  if (event.code !== NO_SUCH_KEY) return;
  card?.replaceChildren();
  socket.close();
});
