import { useEffect, type ReactNode } from 'react';
import {
    FormProvider,
    useController,
    useFormContext,
    type FieldPath,
    type FieldPathByValue,
    type FieldValues,
} from 'react-hook-form';
import { Checks, Choice, Field, FieldProblem, ProblemNote, Select, TextArea } from '../basics';
import { Finder } from '../Finder';
import type { WritingForm } from './useForm';

const SHOWN = new WeakMap<object, Set<string>>();

/** The pointers of the fields on the screen: what is said there is not said again below. */
const shownIn = (control: object) => {
    const there = SHOWN.get(control) ?? new Set<string>();
    SHOWN.set(control, there);
    return there;
};

/** A field by its name, its value and its sentence; while it is mounted, refusals of its pointer are shown at it. */
function useNamed(name: string) {
    const { control } = useFormContext();
    const { field, fieldState } = useController({ name, control });
    useEffect(() => {
        const there = shownIn(control);
        const pointer = `/${name.replaceAll('.', '/')}`;
        there.add(pointer);
        return () => void there.delete(pointer);
    }, [control, name]);
    return {
        value: field.value as unknown,
        change: field.onChange,
        focus: field.ref,
        problem: fieldState.error?.message,
    };
}

type Text = Omit<Parameters<typeof Field>[0], 'value' | 'onChange' | 'problem' | 'inputRef'> & {
    upper?: boolean;
    onChange?: (v: string) => void;
};

function NamedText({ name, upper, onChange, ...rest }: Text & { name: string }) {
    const { value, change, focus, problem } = useNamed(name);
    const typed = (v: string) => {
        change(upper ? v.toUpperCase() : v);
        onChange?.(v);
    };
    return (
        <Field {...rest} inputRef={focus} value={String(value ?? '')} onChange={typed} {...(problem && { problem })} />
    );
}

function NamedArea({ name, ...rest }: { name: string; label: string; rows?: number }) {
    const { value, change, problem } = useNamed(name);
    return <TextArea {...rest} value={String(value ?? '')} onChange={change} {...(problem && { problem })} />;
}

type Pick = Omit<Parameters<typeof Select>[0], 'value' | 'onChange' | 'problem'> & { onChange?: (v: string) => void };

function NamedSelect({ name, onChange, ...rest }: Pick & { name: string }) {
    const { value, change, problem } = useNamed(name);
    const chosen = (v: string) => {
        change(v);
        onChange?.(v);
    };
    return <Select {...rest} value={String(value ?? '')} onChange={chosen} {...(problem && { problem })} />;
}

type Find = Omit<Parameters<typeof Finder>[0], 'value' | 'onChange' | 'problem'>;

function NamedFinder({ name, ...rest }: Find & { name: string }) {
    const { value, change, problem } = useNamed(name);
    return <Finder {...rest} value={String(value ?? '')} onChange={change} {...(problem && { problem })} />;
}

type Buttons = Omit<Parameters<typeof Choice>[0], 'value' | 'onChange'>;

function NamedChoice({ name, optional, ...rest }: Buttons & { name: string; optional?: boolean }) {
    const { value, change, problem } = useNamed(name);
    return (
        <div>
            <Choice
                {...rest}
                value={value as string | null}
                onChange={(v) => change(optional && v === value ? null : v)}
            />
            <FieldProblem>{problem}</FieldProblem>
        </div>
    );
}

function NamedChecks({
    name,
    ...rest
}: { name: string } & Omit<Parameters<typeof Checks>[0], 'chosen' | 'onChange' | 'problem'>) {
    const { value, change, problem } = useNamed(name);
    return <Checks {...rest} chosen={value as string[]} onChange={change} {...(problem && { problem })} />;
}

/** The fields of a form whose values have this shape; a name that is none of them does not compile. */
export function fieldsOf<V extends FieldValues>() {
    type Named<P> = (props: P & { name: FieldPath<V> }) => ReactNode;
    type Listed<P> = (props: P & { name: FieldPathByValue<V, string[]> }) => ReactNode;
    return {
        Text: NamedText as Named<Text>,
        Area: NamedArea as Named<{ label: string; rows?: number }>,
        Pick: NamedSelect as Named<Pick>,
        Find: NamedFinder as Named<Find>,
        Buttons: NamedChoice as Named<Buttons & { optional?: boolean }>,
        Checks: NamedChecks as Listed<Omit<Parameters<typeof Checks>[0], 'chosen' | 'onChange' | 'problem'>>,
    };
}

/** Gives the fields inside it their form. */
export function FormFields<In extends FieldValues, Out>({
    of: form,
    children,
}: {
    of: WritingForm<In, Out>;
    children: ReactNode;
}) {
    return <FormProvider {...form.fields}>{children}</FormProvider>;
}

/** What the server said that belongs to no field on the screen. */
export function FormProblem<In extends FieldValues, Out>({ of: form }: { of: WritingForm<In, Out> }) {
    return <ProblemNote problem={form.problem} except={[...shownIn(form.fields.control)]} />;
}
