import type { AnswerOf, Endpoints, ErrorBody } from "../../../api/index.ts";
import { describePost } from "../../../core/pin/index.ts";
import { ask, Refused } from "../../app/client.ts";
import { signAsFront } from "../../app/held.ts";
import { isFinal } from "../refusals.ts";
import type { KeptPost } from "../syncStore.ts";
import { doEach } from "./outage.ts";
import { byId, canSend, type QueueState } from "./queueState.ts";
import type { Post, PostName } from "./types.ts";

interface Sending {
  /** Sends what is owed now; whoever asks while it is under way waits for that. */
  send(): Promise<void>;
  /** What is under way. */
  current(): Promise<void> | null;
  readonly patienceMs: number;
}

/** Entries tell what this device's clock says as they go, however long they were kept. */
const stampTime = ({ name, body }: Post) => (name === "addOwnerEntries" ? { ...body, deviceMs: Date.now() } : body);

/** On a shared tablet, its author's word for it, where they are in front. */
const prove = ({ by, name, params, body }: { by: string | null; name: string; params: object; body: object }) =>
  by === null ? null : signAsFront(by, () => describePost(name, params, body));

/** Hours, runs and fuel: sent, kept for later, or refused and answered. */
export function createPostBox(state: QueueState, sending: Sending, tellPosted: (post: Post) => Promise<void>) {
  const { posts, posting } = state;
  const outcomes = new Map<string, { answer: unknown } | { refusal: ErrorBody["error"] }>();
  const drop = async (id: string) => {
    posts.delete(id);
    state.setPosts();
    await state.write([["posts", id, null]]);
  };
  const put = async (post: Post) => {
    posts.set(post.id, post);
    state.setPosts();
    await state.write([["posts", post.id, post as unknown as KeptPost]]);
  };
  const isDue = ({ by, refusal }: Post) => refusal === null && (by === null || canSend(state, by));
  const sendOne = async (id: string) => {
    // It may have been discarded meanwhile.
    const post = posts.get(id);
    if (post === undefined) return;
    try {
      const as = post.by === null ? {} : { as: post.by, proof: post.proof ?? null };
      const answer = await ask(post.name, { params: post.params, body: stampTime(post), ...as } as never);
      if (posting.has(id)) outcomes.set(id, { answer });
      await drop(id);
      state.setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
      await tellPosted(post);
    } catch (error) {
      if (!(error instanceof Refused) || !isFinal("post", error.code)) throw error;
      if (!posting.has(id)) return put({ ...post, refusal: error.facts });
      outcomes.set(id, { refusal: error.facts });
      await drop(id);
    }
  };
  return {
    isOwed: () => [...posts.values()].some(isDue),
    sendPosts: () =>
      doEach(
        [...posts.values()]
          .filter(isDue)
          .sort(byId)
          .map(({ id }) => id),
        sendOne,
      ),
    drop,
    /** Throws Refused when the yard does not take it now; null when it is kept here. */
    async post<N extends PostName>(post: Omit<Post<N>, "by" | "refusal">): Promise<AnswerOf<Endpoints[N]> | null> {
      const isOwners = "token" in post.params;
      posting.add(post.id);
      try {
        const by = isOwners ? null : state.user;
        await put({ ...post, by, proof: prove({ ...(post as unknown as Post), by }), refusal: null } as Post);
        const before = sending.current() ?? Promise.resolve();
        const sent = before.then(() => (posts.has(post.id) ? sending.send() : undefined));
        await Promise.race([sent, new Promise((resolve) => setTimeout(resolve, sending.patienceMs))]);
      } finally {
        posting.delete(post.id);
        state.setPosts();
      }
      const outcome = outcomes.get(post.id);
      outcomes.delete(post.id);
      if (outcome === undefined) return null;
      if ("refusal" in outcome) throw new Refused(outcome.refusal);
      return outcome.answer as AnswerOf<Endpoints[N]>;
    },
    /** Sends one that was refused again, with what was asked about it. */
    async answer(id: string, change: Record<string, unknown>) {
      const post = posts.get(id);
      if (post === undefined) return;
      const answered = { ...post, body: { ...post.body, ...change } } as Post;
      await put({ ...answered, proof: prove(answered), refusal: null });
      await sending.send();
    },
  };
}
