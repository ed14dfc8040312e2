import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Label, Field } from '@headlessui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useState } from 'react';
import { FieldProblem } from './basics';

export type Choices = { options: { value: string; text: string }[]; more: boolean };

type Finding = {
    label: string;
    /** What is asked for, in words: part of the key under which answers are kept. */
    of: string;
    find: (typed: string) => Promise<Choices>;
    value: string;
    onChange: (v: string) => void;
    empty: string;
    problem?: string;
};

const TYPED_FOR_MS = 160;

/** One out of too many for a list: what is typed is looked for where they are. */
export function Finder({ label, of, find, value, onChange, empty, problem }: Finding) {
    const id = useId();
    const [typed, setTyped] = useState('');
    const [asked, setAsked] = useState('');
    useEffect(() => {
        const timer = setTimeout(() => setAsked(typed.trim()), TYPED_FOR_MS);
        return () => clearTimeout(timer);
    }, [typed]);
    const found = useQuery({ queryKey: [of, asked], queryFn: () => find(asked), placeholderData: (kept) => kept });
    // The one that is chosen, by its code, so that a draft taken up again shows its name.
    const own = useQuery({ queryKey: [of, value], queryFn: () => find(value), enabled: value !== '' });
    const name = own.data?.options.find((o) => o.value === value)?.text ?? value;
    return (
        <Field>
            <Label className="block text-sm font-semibold text-faint">{label}</Label>
            <Combobox<string> value={value} onChange={(v) => onChange(v ?? '')} onClose={() => setTyped('')} immediate>
                <div className="relative">
                    <ComboboxInput
                        className="input text-ellipsis placeholder:text-faint"
                        autoComplete="off"
                        placeholder={empty}
                        displayValue={() => name}
                        aria-invalid={problem ? true : undefined}
                        aria-describedby={problem && `${id}-p`}
                        onChange={(e) => setTyped(e.target.value)}
                    />
                    <Found choices={found.data} failed={found.isError} typed={asked} empty={empty} />
                </div>
            </Combobox>
            <FieldProblem id={`${id}-p`}>{problem}</FieldProblem>
        </Field>
    );
}

const ROW = 'flex min-h-11 cursor-pointer items-center px-3 py-1 data-focus:bg-enamel data-focus:text-enamel-ink';

function Found(props: { choices: Choices | undefined; failed: boolean; typed: string; empty: string }) {
    const { choices, failed, typed, empty } = props;
    const options = choices?.options ?? [];
    return (
        <ComboboxOptions
            modal={false}
            className="absolute z-20 mt-1 max-h-80 w-max max-w-96 min-w-full overflow-auto border-2 border-enamel bg-sheet shadow-lg"
        >
            {typed === '' && (
                <ComboboxOption value="" className={`${ROW} text-faint`}>
                    {empty}
                </ComboboxOption>
            )}
            {options.map((o) => (
                <ComboboxOption key={o.value} value={o.value} className={ROW}>
                    {o.text}
                </ComboboxOption>
            ))}
            {failed ? (
                <Note text="The list did not come; type again to ask once more." />
            ) : (
                choices && options.length === 0 && <Note text={`Nothing begins with “${typed}”.`} />
            )}
            {choices?.more && <Note text="There are more: type on." />}
        </ComboboxOptions>
    );
}

function Note({ text }: { text: string }) {
    return (
        <ComboboxOption value={text} disabled className="px-3 py-2 text-sm text-faint">
            {text}
        </ComboboxOption>
    );
}
