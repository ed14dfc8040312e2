<?php

namespace App\Stations\Teardown\Http;

use App\Stations\Teardown\Queries\TeardownReport;
use App\Yard\Models\Unit;
use Dompdf\Dompdf;
use Dompdf\Options;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Response;

/** The report of a teardown, to be read on the screen, printed, or sent as a PDF. */
final class ReportController
{
    public function __construct(private readonly TeardownReport $report)
    {
    }

    public function page(string $number): View
    {
        return $this->view($number);
    }

    public function pdf(string $number): Response
    {
        $kept = config('yard.state').'/framework/cache/data';
        // Nothing is fetched from anywhere: pictures are in the page itself.
        $pdf = new Dompdf(new Options([
            'isRemoteEnabled' => false,
            'defaultFont' => 'DejaVu Sans',
            'defaultPaperSize' => 'a4',
            'fontCache' => $kept,
            'tempDir' => $kept,
        ]));
        $pdf->loadHtml($this->view($number)->render());
        $pdf->render();

        return response((string) $pdf->output(), 200, [
            'Content-Type' => 'application/pdf',
            'Content-Disposition' => "inline; filename=\"teardown-$number.pdf\"",
        ]);
    }

    private function view(string $number): View
    {
        return view('teardown-report', $this->report->of(Unit::byNumber($number)) + [
            'picture' => self::picture(...),
        ]);
    }

    /** A picture as part of the page; null where its file is gone. */
    private static function picture(string $path): ?string
    {
        $file = config('yard.state')."/app/$path";

        return is_file($file) ? 'data:image/jpeg;base64,'.base64_encode((string) file_get_contents($file)) : null;
    }
}
