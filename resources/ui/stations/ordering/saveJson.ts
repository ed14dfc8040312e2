/** Hands a calculation over as a file. */
export function saveJson(name: string, data: unknown) {
    const link = Object.assign(document.createElement('a'), {
        href: URL.createObjectURL(new Blob([JSON.stringify(data, null, 2)], { type: 'application/json' })),
        download: name,
    });
    link.click();
    URL.revokeObjectURL(link.href);
}
