import { id } from '../../core/vocabulary/fields';
import { wateringInput, type WateringInput } from '../../core/aftercare/water/watering';
import { readForm } from './form';
import { check } from './http';

/** A watering as Today and Aftercare send it, with the tree it is of. @throws Refusal 422 */
export const wateringForm = (form: FormData): { treeId: string; watering: WateringInput } => ({
	treeId: check(id(), form.get('treeId')),
	watering: readForm(wateringInput, form)
});
