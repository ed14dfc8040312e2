import { useState } from 'react';
import { Field } from '../../kit/basics';

/** An empty field goes as it is, so that the answer says which one is missing. */
const number = (s: string) => (s.trim() === '' ? s : Number(s));

type Fields<K extends string> = Record<K, [label: string, value: string]>;

/** Fields of a desk with what stands in them first. */
export function useFields<K extends string>(first: Fields<K>) {
    const [typed, setTyped] = useState(first);
    const fields = (Object.entries(typed) as [K, [string, string]][]).map(([key, [label, value]]) => (
        <Field
            key={key}
            className="w-40"
            label={label}
            value={value}
            onChange={(v) => setTyped({ ...typed, [key]: [label, v] })}
        />
    ));
    return { fields, of: (key: K) => number(typed[key][1]) };
}
