/** The live connection: opens itself again, notices gaps, tells whoever subscribes. */
import { WebSocket as Reconnecting } from "partysocket";
import { EMPTY, type LiveState, take } from "./reducer";
import type { Frame } from "./types";

const SHUT_OUT = 4401;
type Listener = () => void;

export class LiveStore {
  private state: LiveState = EMPTY;
  private listeners = new Set<Listener>();
  private socket: Reconnecting | null = null;
  private editing: string[] = [];

  /** `onShutOut` is told when the server lets this screen in no more. */
  open(onShutOut: () => void): void {
    const address = `${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/api/live`;
    const socket = new Reconnecting(address, [], { minReconnectionDelay: 300, maxReconnectionDelay: 5000 });
    socket.binaryType = "blob";
    socket.addEventListener("message", (event: MessageEvent) => {
      void this.hear(event.data as Blob | string, socket);
    });
    socket.addEventListener("close", (event) => {
      this.set({ ...this.state, connected: false, number: null });
      if (event.code === SHUT_OUT) onShutOut();
    });
    socket.addEventListener("open", () => this.tellEditing());
    this.socket = socket;
  }

  /** Lets the others know which places hold something unsaved here. */
  edits(places: string[]): void {
    if (places.join("\n") === this.editing.join("\n")) return;
    this.editing = places;
    this.tellEditing();
  }

  private tellEditing(): void {
    if (this.socket?.readyState === Reconnecting.OPEN)
      this.socket.send(JSON.stringify({ editing: this.editing }));
  }

  close(): void {
    this.socket?.close();
    this.socket = null;
    this.set(EMPTY);
  }

  get = (): LiveState => this.state;

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private queue: Promise<void> = Promise.resolve();

  private hear(data: Blob | string, socket: Reconnecting): Promise<void> {
    this.queue = this.queue.then(async () => {
      const frame = JSON.parse(typeof data === "string" ? data : await data.text()) as Frame;
      const next = take(this.state, frame, Date.now());
      if (next === null) socket.send("again");
      else this.set(next);
    });
    return this.queue;
  }

  private set(state: LiveState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}

export const live = new LiveStore();
