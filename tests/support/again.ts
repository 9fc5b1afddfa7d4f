import { jest } from '@jest/globals';

// What depends on a browser, four programs and two processors is tried once more before it counts as failed; the end of
// the run says which tests needed it.
jest.retryTimes(1, { logErrorsBeforeRetry: true, retryImmediately: true });
