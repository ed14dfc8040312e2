{{-- What every paper looks like: printed, sent, or read on a screen. --}}
<style>
    body { font-family: "DejaVu Sans", sans-serif; font-size: 9pt; color: #111; }
    body { max-width: 185mm; margin: 10mm auto; }
    h1 { font-size: 18pt; margin: 0 0 2mm; }
    h2 { font-size: 12pt; margin: 6mm 0 2mm; border-bottom: 1px solid #111; }
    table { width: 100%; border-collapse: collapse; }
    td, th { text-align: left; vertical-align: top; padding: 0.8mm 2mm 0.8mm 0; border-bottom: 1px solid #bbb; }
</style>
