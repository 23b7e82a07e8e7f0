export { KernelFailure, openCascade } from './opencascade.ts';
export {
  DEFAULT_SIZE_LIMIT,
  readerSetting,
  READERS,
  readStep,
  tooLargeMessage,
  type Reader,
} from './read-step.ts';
export { StepFileError } from '@yellow-pin/core/step/step-text';
export type { Progress } from './opencascade.ts';
