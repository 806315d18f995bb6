/** On a busy machine a page may take longer than Testing Library's second. */
import { configure } from '@testing-library/react';

configure({ asyncUtilTimeout: 60_000 });
