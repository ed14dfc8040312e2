/**
 * One key an intent: what is sent again after a lost connection, by hand or by itself, carries the key it had, so that
 * nothing happens twice. Only a definite answer ends an intent; another request is another intent.
 */
const open = new Map<string, string>();

/** A random UUID (version 4) that also works where the page came without TLS and crypto.randomUUID is missing. */
export function uuid(): string {
    const bytes = crypto.getRandomValues(new Uint8Array(16));
    bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
    bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
    const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
    return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}

const isFile = (v: FormDataEntryValue): v is File => typeof v !== 'string';

/** What the request asks for: method, address and body; of a file its name and size. */
export async function intentOf(request: Request): Promise<string> {
    const head = `${request.method} ${request.url} `;
    if (!request.headers.get('Content-Type')?.startsWith('multipart/form-data')) {
        return head + (await request.clone().text());
    }
    const fields = [...(await request.clone().formData()).entries()];
    return head + JSON.stringify(fields.map(([k, v]) => [k, isFile(v) ? `${v.name} ${v.size}` : String(v)]));
}

export function keyFor(intent: string): string {
    const key = open.get(intent) ?? uuid();
    open.set(intent, key);
    return key;
}

/** The gateway's "no answer yet" keeps the intent open; everything else the server says is definite. */
export function settle(intent: string, status: number): void {
    if (![502, 503, 504].includes(status)) open.delete(intent);
}
