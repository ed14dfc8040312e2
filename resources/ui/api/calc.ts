import { answer, api } from './client';

/**
 * Runs a calculator; the answer has the shape its schema in core/schema says. Throws the problem document.
 */
export const compute = async <T>(name: string, input: object): Promise<T> =>
    (await answer(api.POST('/calc/{name}', { params: { path: { name } }, body: { ...input } }))) as T;
