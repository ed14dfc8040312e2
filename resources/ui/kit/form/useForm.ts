import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect } from 'react';
import {
    useForm as useHookForm,
    type DefaultValues,
    type FieldValues,
    type Path,
    type UseFormReturn,
} from 'react-hook-form';
import type { z } from 'zod';
import type { Problem } from '../../api/client';
import { useWrite, type Result } from '../../api/useWrite';
import { forget, remembered, useRemembered } from './draft';
import { sentencesOf } from './problems';

/** A form that writes: its fields, what the server says of them, and the one intent it sends. */
export type WritingForm<In extends FieldValues, Out> = {
    fields: UseFormReturn<In, unknown, Out>;
    busy: boolean;
    problem: Problem | null;
    /** What a button or Enter calls: checks what was typed, sends it, and goes on with the answer. */
    submit: <T>(call: (typed: Out) => Promise<Result<T>>, done?: (answer: T) => void) => () => void;
    /** Begins anew, the copy on the tablet included. */
    clear: () => void;
};

/**
 * Every form of the shop. The schema says what is asked and turns what was typed into what the contract takes; a refusal
 * of the server is shown at its field by its pointer; nothing typed is lost.
 *
 * @param draft keeps what is typed on the tablet under this name, until it is cleared
 */
export function useForm<In extends FieldValues, Out>({
    schema,
    start,
    draft,
}: {
    schema: z.ZodType<Out, In>;
    start: In;
    draft?: string;
}): WritingForm<In, Out> {
    const fields = useHookForm<In, unknown, Out>({
        resolver: zodResolver(schema),
        defaultValues: (draft === undefined ? start : remembered(draft, start)) as DefaultValues<In>,
    });
    const { busy, problem, write } = useWrite();
    useRemembered(draft, fields.watch);
    useEffect(() => {
        for (const [name, message] of Object.entries(sentencesOf(problem))) {
            fields.setError(name as Path<In>, { type: 'server', message });
        }
    }, [problem, fields]);
    return {
        fields,
        busy,
        problem,
        submit: (call, done) => () =>
            void fields.handleSubmit((typed) => write(() => call(typed), done).then(() => undefined))(),
        clear: () => {
            if (draft !== undefined) forget(draft);
            fields.reset(start);
        },
    };
}
