<?php

namespace App\Kernel\Http;

use Dompdf\Dompdf;
use Dompdf\Options;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Response;

/** A page as a PDF to send or print; nothing is fetched from anywhere, pictures are in the page itself. */
final class Paper
{
    public static function pdf(View $page, string $name): Response
    {
        $kept = config('yard.state').'/framework/cache/data';
        $pdf = new Dompdf(new Options([
            'isRemoteEnabled' => false,
            'defaultFont' => 'DejaVu Sans',
            'defaultPaperSize' => 'a4',
            'fontCache' => $kept,
            'tempDir' => $kept,
        ]));
        $pdf->loadHtml($page->render());
        $pdf->render();

        return response((string) $pdf->output(), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => "inline; filename=\"$name.pdf\"",
        ]);
    }
}
