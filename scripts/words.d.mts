/** Each message of the product, with the file in which it stands first. */
export function messages(): Map<string, string>;
