/** What pg has of a connection, and says of it nowhere else. */
export interface PgConnection {
  readonly connection: { readonly stream: { destroy(): void } };
}

/** Ends a connection at once, also one on which nobody answers any more. */
export const cut = ({ connection }: PgConnection): void => connection.stream.destroy();
