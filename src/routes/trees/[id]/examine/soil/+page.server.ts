import { measurementActions } from '$lib/server/edge/examine-form';
import type { Actions } from './$types';

export const actions: Actions = measurementActions;
