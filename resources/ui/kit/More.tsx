import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { type ReactNode, useState } from 'react';

/**
 * What is there when it is wanted: closed until its line is pressed.
 *
 * @param open what must be seen opens by itself, also when that turns out later
 * @param late it is not built before it is opened for the first time: for long lists of long things
 */
export function More({
    title,
    children,
    open = false,
    className = '',
    late = false,
}: {
    title: ReactNode;
    children: ReactNode;
    open?: boolean;
    className?: string;
    late?: boolean;
}) {
    return (
        <Disclosure key={String(open)} defaultOpen={open} as="div" className={className}>
            <DisclosureButton className="group flex min-h-11 w-full items-center gap-2 py-2 text-left font-semibold">
                <span aria-hidden="true" className="group-data-open:rotate-90">
                    ▸
                </span>
                {title}
            </DisclosureButton>
            <DisclosurePanel unmount={false}>
                {({ open }) => <Filled at={open || !late}>{children}</Filled>}
            </DisclosurePanel>
        </Disclosure>
    );
}

/** Once it is there it stays, and keeps what was typed. */
function Filled({ at, children }: { at: boolean; children: ReactNode }) {
    const [filled, setFilled] = useState(at);
    if (at && !filled) setFilled(true);
    return filled && children;
}
