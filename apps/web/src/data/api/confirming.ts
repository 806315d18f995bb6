/** Asks for the password again where the server wants it (`confirm-needed`), before the request is sent once more. */

type Ask = () => Promise<boolean>;

let asking: Ask | null = null;
/** Several requests at once wait for one answer. */
let open: Promise<boolean> | null = null;

export const confirming = {
  /** The page that can ask; null: none. */
  askedBy: (ask: Ask | null): void => {
    asking = ask;
  },
  /** Resolves to whether the person gave the password; false where no page can ask. */
  ask: (): Promise<boolean> => {
    open ??= (asking?.() ?? Promise.resolve(false)).finally(() => {
      open = null;
    });
    return open;
  },
};
