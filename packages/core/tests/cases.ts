/** Random cases in a test: few, so that the checks end soon. `npm run fuzz` asks for ten times as many, `CASES=100` for more. */
export const cases = (few: number): number => Math.ceil(few * Number(process.env['CASES'] ?? 1));
