import type { LabPage } from '@/domain/lab';
import { groundModel } from './ground';
import type { LabModel } from './model';

/** Every page of the lab that is a model, by its name in the address. */
export const LAB_MODELS: Partial<Record<LabPage, LabModel>> = { ground: groundModel };
