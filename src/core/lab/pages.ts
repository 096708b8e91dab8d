import type { LabPage } from '@/domain/lab-pages';
import { crosswindModel } from './crosswind';
import { groundModel } from './ground';
import type { LabModel } from './model';
import { sideModel } from './side-picture';
import { slipModel } from './slip';
import { slowModel } from './slow-approach';
import { takeOffModel } from './take-off';
import { touchModel } from './touch';

/** Every page of the lab that is a model, by its name in the address. */
export const LAB_MODELS: Readonly<Record<LabPage, LabModel>> = {
  ground: groundModel,
  'take-off': takeOffModel,
  touch: touchModel,
  crosswind: crosswindModel,
  'side-picture': sideModel,
  slip: slipModel,
  'slow-approach': slowModel,
};
export { readTrials, slowResult, writeTrials } from './slow-approach';
export { footForSwing, rollInput, rollOutSpeed } from './ground';
