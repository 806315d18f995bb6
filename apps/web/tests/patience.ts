/** A page on a busy machine may take longer than Testing Library's second to show something. */
import { configure } from '@testing-library/react';

configure({ asyncUtilTimeout: 60_000 });
