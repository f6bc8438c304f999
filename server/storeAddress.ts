/** Where browsers reach this server: as its start says, else as the store's settings say; null where nobody has. */
export function createStoreAddress(fixed: () => string | null) {
  let said: string | null = null;
  return {
    find: (): string | null => fixed() ?? said,
    set(address: string | null) {
      said = address;
    },
  };
}

export type StoreAddress = ReturnType<typeof createStoreAddress>;
