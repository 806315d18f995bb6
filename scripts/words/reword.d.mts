export function rewordCode(pairs: ReadonlyMap<string, string>): Promise<string[]>;
export function rewordedText(
  code: string,
  pairs: { readonly get: (name: string) => string | undefined },
  file?: string,
): string;
