import type { OutboxRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

export interface Message {
  /** Sent once under one id, however often it is asked for. */
  readonly id: string;
  readonly deliveryId: string;
  readonly recipient: string;
  readonly text: string;
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
    async send(message, transaction) {
      await models.outbox.upsert({ ...message, state: "sent" }, { transaction });
    },
    listOf: (deliveryId) => readAll(models.outbox, { where: { deliveryId }, order: ["at"] }),
  };
}
