<?php

namespace App\Stations\Teardown\Http;

use App\Kernel\Http\Paper;
use App\Kernel\Refusal;
use App\Stations\Teardown\Models\VehicleCause;
use App\Stations\Teardown\Queries\TeardownReport;
use App\Work\Generation;
use App\Yard\Models\Unit;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Response;

/** The papers of a teardown: its report, and the letter about what lies in the vehicle. */
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
        return Paper::pdf($this->view($number), "teardown-$number");
    }

    public function letter(string $number): View
    {
        return self::aboutTheVehicle($number);
    }

    public function letterPdf(string $number): Response
    {
        return Paper::pdf(self::aboutTheVehicle($number), "letter-$number");
    }

    private function view(string $number): View
    {
        return view('teardown-report', $this->report->of(Unit::byNumber($number)) + [
            'picture' => self::picture(...),
        ]);
    }

    private static function aboutTheVehicle(string $number): View
    {
        $unit = Unit::byNumber($number);
        $causes = VehicleCause::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->orderBy('id')
            ->get();
        if ($causes->isEmpty()) {
            throw new Refusal('No cause in the vehicle is named for this unit, so there is no letter to write.', 409);
        }

        return view('vehicle-letter', ['unit' => $unit, 'causes' => $causes]);
    }

    /** A picture as part of the page; null where its file is gone. */
    private static function picture(string $path): ?string
    {
        $file = config('yard.state')."/app/$path";

        return is_file($file) ? 'data:image/jpeg;base64,'.base64_encode((string) file_get_contents($file)) : null;
    }
}
