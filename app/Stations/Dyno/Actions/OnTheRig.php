<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Refusal;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Models\Build;
use Yard\Core\Dyno\SpecimenFile;

/** Hands the test cell the file of the unit that is put on the rig: its train, its hardware, and how it was built. */
final class OnTheRig
{
    /** Of the travel that is not measured, what is usual (common practice, no source), mm. */
    private const USUAL_MM = ['clutch' => 1.4, 'band' => 2.4];

    public function __construct(private readonly BuiltNumbers $numbers)
    {
    }

    public function mount(Build $build): void
    {
        $file = $this->file($build);
        $folder = config('yard.state').'/app/specimens';
        @mkdir($folder, 0775, true);
        $path = "$folder/".preg_replace('/[^\w.-]/', '_', $file['serial']).'.json';
        if (@file_put_contents("$path.new", (string) json_encode($file, JSON_PRETTY_PRINT)) === false) {
            throw new Refusal('The file of this unit cannot be written for the rig: the disk may be full.', 503);
        }
        rename("$path.new", $path);
    }

    /** @return array<string, mixed> */
    public function file(Build $build): array
    {
        $family = $build->unit->knownFamily();
        // What was released before hardware was frozen has the family's.
        $power = $build->frozen()['hardware'] ?? $family->body['power'];
        $travel = $meant = [];
        foreach (array_diff_key($power['capacities'], ['lock-up' => 0]) as $element => $as) {
            $meant[$element] = $travel[$element] = self::USUAL_MM[$as['kind']] ?? self::USUAL_MM['clutch'];
        }
        foreach ($this->numbers->of($build) as $number) {
            $target = $number['min'] !== null && $number['max'] !== null ? ($number['min'] + $number['max']) / 2 : 0.0;
            // A pack looser than the middle of its window takes so much more oil before it holds.
            if ($number['kind'] === 'pack' && isset($travel[$number['code']]) && $target > 0.0) {
                $travel[$number['code']] = round($meant[$number['code']] * $number['value'] / $target, 3);
            }
        }

        return SpecimenFile::of(
            (string) $build->serial,
            $family->code,
            $build->frozen()['train'],
            $power,
            $family->body['control'] ?? null,
            $travel,
            $meant,
            (float) ($build->frozen()['fluid']['litres'] ?? 0.0),
        );
    }
}
