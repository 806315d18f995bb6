import { useNavigate } from 'react-router';
import { useSignIn } from '../../data/api/people.ts';

/** Signs in someone who has just chosen a password, or shows the sign-in page if they use a second factor. */
export function useComeIn(): (email: string, password: string) => void {
  const navigate = useNavigate();
  const signIn = useSignIn();
  return (email, password) =>
    signIn.mutate({ email, password }, { onSettled: () => void navigate('/', { replace: true }) });
}
