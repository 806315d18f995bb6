/** The person offered on the sign-in page in demo mode. The demo module provides it. */
export interface DemoSignIn {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

export const DEMO_SIGN_IN = Symbol('demo sign-in');
