<?php

namespace App\Stations\Assembly\Queries;

use App\Stations\Assembly\Models\Measurement;
use App\Work\ReadingKind;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gate;
use App\Yard\Models\Unit;

/** What still bars the signature of the builder: steps, parts not chosen, readings missing, outside or out of date. */
final class OpenAssembly
{
    public function __construct(private readonly DynoRecord $dyno)
    {
    }

    /** @return list<Blocker> */
    public function of(Unit $unit, ?AssemblyRecord $record = null): array
    {
        $build = $unit->currentBuild;
        if ($build === null || $build->spec === null) {
            return [];
        }
        $record ??= AssemblyRecord::of($build);
        $reopened = $this->dyno->failedElement($build);
        $bar = fn (string $code, string $sentence) => new Blocker(
            Gate::SignOff,
            $code,
            $sentence,
            "/units/$unit->core_tag/assembly",
        );
        $blockers = [];
        foreach ($build->frozen()['assembly'] as $step) {
            if (! isset($record->marks[$step['code']])) {
                $blockers[] = $bar("step:{$step['code']}", "Step \"{$step['name']}\" is not done.");
            }
        }
        foreach (ReadingKind::cases() as $kind) {
            foreach ($kind->places($build->frozen()) as $place) {
                $code = "$kind->value:{$place['code']}";
                if ($kind->isFitted() && ! isset($record->fits[$place['code']])) {
                    $blockers[] = $bar("fit:$code", "\"{$place['name']}\": no parts chosen yet.");
                }
                $against = $this->against($kind, $place, $record, $reopened);
                if ($against !== null) {
                    $blockers[] = $bar("reading:$code", "\"{$place['name']}\"$against");
                }
            }
        }

        return $blockers;
    }

    /**
     * @param  array<string, mixed>  $place
     * @param  array{element: string, at: \Illuminate\Support\Carbon}|null  $reopened
     */
    private function against(ReadingKind $kind, array $place, AssemblyRecord $record, ?array $reopened): ?string
    {
        $taken = $record->readings[$kind->value][$place['code']] ?? [];
        $last = end($taken) ?: null;
        if ($last === null) {
            return ": the {$kind->inWords()} is not measured.";
        }
        if (! $last->inside) {
            return $this->outside($kind, $last);
        }
        $gauge = $last->gauge_id === null ? null : $record->gauges->get($last->gauge_id);
        if ($gauge !== null && $gauge->calibrated_until < $last->measured_at->format('Y-m-d')) {
            return ": the gauge $gauge->name was past its calibration date.";
        }
        $element = $place['element'] ?? null;

        return $reopened !== null && $reopened['element'] === $element && $last->measured_at <= $reopened['at']
            ? ' must be measured again after the failed dyno run.'
            : null;
    }

    private function outside(ReadingKind $kind, Measurement $m): string
    {
        $value = (float) $m->value;

        return ": the {$kind->inWords()} of $value $m->unit lies outside ".
            (float) $m->window_min.' to '.(float) $m->window_max.'.';
    }
}
