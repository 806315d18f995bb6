export function makeTemplate(adminUrl: string, folder: string): Promise<void>;
export function makeTestDatabase(options?: { readonly empty?: boolean }): Promise<string>;
