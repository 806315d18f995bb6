/** A device's storage over a map; its keys are those of the object, as in a browser. */
export const storage = (values: Map<string, string>) =>
  new Proxy(
    {
      getItem: (key: string) => values.get(key) ?? null,
      setItem: (key: string, value: string) => void values.set(key, value),
      removeItem: (key: string) => void values.delete(key),
    },
    {
      ownKeys: () => [...values.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    },
  );
