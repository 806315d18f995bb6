/** Whom the sign-in page offers where there is a demo. Anybody who makes the demo provides it. */
export interface DemoSignIn {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

export const DEMO_SIGN_IN = Symbol('demo sign-in');
