import type { OutboxRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

export interface Message {
  /** Sent once under one id, however often it is asked for. */
  readonly id: string;
  readonly deliveryId: string;
  readonly recipient: string;
  readonly text: string;
  /** What of the text is told to the buyer alone and never kept, such as the token of a private link. */
  readonly secret?: string;
  readonly at: string;
}

/** A service that sends text messages to buyers. */
export interface Messages {
  send(message: Message, transaction: Transaction): Promise<void>;
  listOf(deliveryId: string): Promise<OutboxRow[]>;
}

/** The stand-in: it keeps what it was given in the store's outbox, where people can read it, and says that it was sent. */
export function createMessagesStandIn({ models }: Database): Messages {
  return {
    async send({ secret, ...message }, transaction) {
      const text = secret === undefined ? message.text : message.text.replaceAll(secret, "…");
      await models.outbox.upsert({ ...message, text, state: "sent" }, { transaction });
    },
    listOf: (deliveryId) => readAll(models.outbox, { where: { deliveryId }, order: ["at"] }),
  };
}
