import { useNavigate } from 'react-router';
import { useSignIn } from '../../data/api/people.ts';

/** Signs somebody in who has just chosen a password, and shows the application: to who has a second factor, its sign-in. */
export function useComeIn(): (email: string, password: string) => void {
  const navigate = useNavigate();
  const signIn = useSignIn();
  return (email, password) =>
    signIn.mutate({ email, password }, { onSettled: () => void navigate('/', { replace: true }) });
}
