<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\SignOff;
use App\Stock\Queries\InstalledNow;
use App\Work\Bench;
use App\Work\Judges\FreeJudge;
use App\Work\Models\Proof;
use App\Work\OperationSpec;
use App\Work\ProofKind;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Models\Build;
use Illuminate\Support\Str;

/** What was built, on paper: every operation, value, part, lot, person and gauge, and what is not as ordered. */
final class BuildRecord
{
    private const SAID = ['photo' => 'pictured', 'sign' => 'signed by a second person'];

    public function __construct(
        private readonly PeopleNames $names,
        private readonly DynoRecord $dyno,
        private readonly PickList $picks,
    ) {
    }

    /** @return array<string, mixed> */
    public function of(Build $build): array
    {
        $work = BenchWork::of($build->unit, Bench::Assembly);
        $readings = Measurement::query()
            ->with('gauge')
            ->where('build_id', $build->id)
            ->orderBy('id')
            ->get();
        $picks = $this->picks->of($build);

        return [
            'build' => $build,
            'spec' => $build->frozen(),
            'operations' => array_values(array_map(
                fn (OperationSpec $o): array => $this->operation($o, $work),
                $work->operations,
            )),
            'readings' => array_values($readings->map(fn (Measurement $m) => $this->reading($m, $build))->all()),
            'installed' => InstalledNow::in($build->id),
            'signOffs' => array_values(SignOff::query()->where('build_id', $build->id)->orderBy('id')->get()
                ->map(fn (SignOff $s): array => [
                    'what' => ucfirst(Str::after($s->what, 'sub:')),
                    'by' => $this->names->of($s->signed_by),
                    'at' => $s->signed_at->format('j M Y, H:i'),
                ])->all()),
            'dyno' => $this->dyno->passed($build),
            'otherwise' => [
                ...self::unlikeTheOrder($picks['lines']),
                ...self::unlikeTheBook($work),
                ...self::mended($readings->all(), $build),
            ],
        ];
    }

    /** @return array<string, mixed> */
    private function operation(OperationSpec $o, BenchWork $work): array
    {
        $row = $work->rows[$o->code] ?? null;
        $said = [];
        foreach ($o->proofs as $proof) {
            $last = $work->last($proof);
            $last === null || $said[] = self::inWords($last);
        }

        return [
            'name' => $o->name,
            'done' => $work->isDone($o->code),
            'by' => $this->names->of($row?->done_by),
            'at' => $row?->done_at->format('j M, H:i'),
            'note' => $row->note ?? '',
            'said' => implode('; ', array_filter($said)),
        ];
    }

    /** What somebody proved, in a few words. */
    private static function inWords(Proof $proof): string
    {
        $a = $proof->answer;

        return match ($proof->kind) {
            ProofKind::Count->value => implode(', ', array_map(
                fn (int|string $what, mixed $n): string => "$n $what",
                array_keys($a['counts']),
                $a['counts'],
            )),
            ProofKind::Orientation->value, ProofKind::Metal->value => (string) $a['choice'],
            ProofKind::Scan->value => (string) $a['code'],
            ProofKind::Tool->value => ($a['without'] ?? false) ? "without the tool: $proof->note" : (string) $a['name'],
            ProofKind::Free->value => self::moved($a['moves']),
            default => self::SAID[$proof->kind] ?? '',
        };
    }

    /** @param  array<string, string>  $moves */
    private static function moved(array $moves): string
    {
        $falls = array_filter($moves, fn (string $how): bool => $how === FreeJudge::FALLS);

        return count($falls) === count($moves)
            ? count($moves).' tried, each falls by its own weight'
            : count($falls).' of '.count($moves).' fall; not '
                .implode(', ', array_keys(array_diff_key($moves, $falls)));
    }

    /** @return array<string, mixed> */
    private function reading(Measurement $m, Build $build): array
    {
        $places = array_column(ReadingKind::from($m->kind)->places($build->frozen()), 'name', 'code');

        return [
            'name' => $places[$m->code] ?? $m->code,
            'what' => ReadingKind::from($m->kind)->inWords(),
            'typed' => $m->typed,
            'window' => $m->window_min === null && $m->window_max === null
                ? ''
                : trim(sprintf('%s to %s %s', (float) $m->window_min, (float) $m->window_max, $m->unit)),
            'inside' => $m->inside,
            'undone' => $m->undone_at !== null,
            'gauge' => $m->gauge === null ? '' : "{$m->gauge->code}, in date to {$m->gauge->calibrated_until}",
            'by' => $this->names->of($m->measured_by),
            'at' => $m->measured_at->format('j M, H:i'),
            'note' => $m->note,
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $lines  of the pick list
     * @return list<string>
     */
    private static function unlikeTheOrder(array $lines): array
    {
        $said = [];
        foreach ($lines as $line) {
            $line['left'] > 0 && $said[] = "{$line['left']} of {$line['count']} \"{$line['name']}\" come from no "
                .'scanned lot.';
            foreach ($line['picked'] as $picked) {
                if ($picked['part'] !== $line['part']) {
                    $said[] = "{$picked['part']} in place of {$line['part']} ({$line['name']}).";
                }
            }
        }

        return $said;
    }

    /** @return list<string> */
    private static function unlikeTheBook(BenchWork $work): array
    {
        $said = [];
        foreach ($work->proofs as $proof) {
            if ($proof->kind === ProofKind::Tool->value && ($proof->answer['without'] ?? false)) {
                $name = $work->operations[$proof->operation]->name ?? $proof->operation;
                $said[] = "\"$name\" was done without its special tool: $proof->note";
            }
        }

        return $said;
    }

    /**
     * @param  array<Measurement>  $readings
     * @return list<string> places that were outside their window first
     */
    private static function mended(array $readings, Build $build): array
    {
        $said = [];
        foreach ($readings as $m) {
            if (! $m->inside) {
                $places = array_column(ReadingKind::from($m->kind)->places($build->frozen()), 'name', 'code');
                $said[$m->kind.$m->code] = ($places[$m->code] ?? $m->code)." read $m->typed first, outside its window.";
            }
        }

        return array_values($said);
    }
}
