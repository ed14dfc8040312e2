declare module 'vin-validator' {
    export function validate(vin: string): boolean;
}
