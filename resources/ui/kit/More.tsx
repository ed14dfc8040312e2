import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import type { ReactNode } from 'react';

/**
 * What is there when it is wanted: closed until its line is pressed.
 *
 * @param open what must be seen opens by itself, also when that turns out later
 */
export function More({
    title,
    children,
    open = false,
    className = '',
}: {
    title: ReactNode;
    children: ReactNode;
    open?: boolean;
    className?: string;
}) {
    return (
        <Disclosure key={String(open)} defaultOpen={open} as="div" className={className}>
            <DisclosureButton className="group flex min-h-11 w-full items-center gap-2 py-2 text-left font-semibold">
                <span aria-hidden="true" className="group-data-open:rotate-90">
                    ▸
                </span>
                {title}
            </DisclosureButton>
            <DisclosurePanel unmount={false}>{children}</DisclosurePanel>
        </Disclosure>
    );
}
