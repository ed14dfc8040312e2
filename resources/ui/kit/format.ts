const money = new Intl.NumberFormat('en', { minimumFractionDigits: 2, maximumFractionDigits: 2 });
export const formatMoney = (n: number) => money.format(n);

const count = new Intl.NumberFormat('en');
export const formatCount = (n: number) => count.format(n);

/** A share in percent; what is not certain is never written as 100. */
export const percent = (p: number, digits = 0) =>
    p < 1 && Number((100 * p).toFixed(digits)) === 100
        ? `over ${(100 - 10 ** -Math.max(digits, 1)).toFixed(Math.max(digits, 1))} %`
        : `${(100 * p).toFixed(digits)} %`;

/** A measured length as the trade writes it: .024, .61, 12.5, never 1e-3. */
export const formatValue = (n: number, unit: string) => {
    const places = unit === 'in' ? 3 : unit === 'mm' ? 2 : 1;
    const fixed = n.toFixed(Math.max(places, Math.min(4, (String(n).split('.')[1] ?? '').length)));
    return fixed;
};

export const day = (iso: string | null | undefined) => (iso ? iso.slice(0, 10) : '');

export const moment = (iso: string) =>
    new Date(iso).toLocaleString('en-GB', { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' });

export function age(iso: string, now = Date.now()): string {
    const hours = Math.max(0, (now - Date.parse(iso)) / 3.6e6);
    return hours < 1 ? 'just now' : hours < 48 ? `${Math.round(hours)} h` : `${Math.round(hours / 24)} days`;
}
