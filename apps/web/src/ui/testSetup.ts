import { configure } from '@testing-library/react';

/** On a busy machine a page takes seconds to draw what it takes moments for elsewhere. */
const PATIENCE_MS = 20_000;

configure({ asyncUtilTimeout: PATIENCE_MS });
