<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Option;
use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Catalog\Read\ByOption;
use App\Stations\Ordering\Duty;
use App\Yard\AskedOrder;
use App\Yard\Models\Build;
use Yard\Core\Input;
use Yard\Core\Packages\PackageOrder;
use Yard\Core\Power\Converter;
use Yard\Core\Power\Engine;
use Yard\Core\Power\Launch;
use Yard\Core\Power\LaunchConditions;
use Yard\Core\Power\VehicleLoad;

/**
 * From a package and the customer's wishes: options with reasons, bill of materials, price, hours, and all windows and
 * steps of the build.
 */
final class Specification
{
    /**
     * The order of a build, resolved with today's catalog and house rules.
     *
     * @return array<string, mixed>
     */
    public function ofBuild(Build $build): array
    {
        $asked = $build->asked();
        $unit = $build->unit;

        return $this->of($unit->knownFamily(), $asked, Duty::of($asked->duty, $build->vehicle), $unit->variant);
    }

    /**
     * @param  Duty|null  $duty  what the unit will have to hold; null: margins are not looked at
     * @param  Variant|null  $variant  null: what only one variant has is not looked at
     * @return array<string, mixed>
     */
    public function of(
        Family $family,
        AskedOrder $order,
        ?Duty $duty = null,
        ?Variant $variant = null,
    ): array {
        $asked = OrderQuestion::of($family, $order, $duty, $variant);
        [$package, $options, $rate] = [$asked->package, $asked->options, $asked->rate];
        $result = PackageOrder::read(Input::of($asked->input))->resolve();
        $known = $options->all();
        $chosen = array_map(fn (string $code) => $known[$code], array_values($result['chosen']));
        $bom = $this->priced($result['bom']);
        $origin = fn (string $code): string => match (true) {
            in_array($code, $order->add, true) => 'wish',
            isset($asked->house[$code]) => 'house',
            in_array($code, $asked->input['package'], true) => 'package',
            in_array($code, $asked->input['always'], true) => 'always',
            default => 'rule',
        };
        $name = fn (array $because) => array_map(
            fn (array $b) => [
                'option' => $b['option'],
                'name' => $known[$b['option']]->name,
                'because' => $b['because'],
            ],
            $because,
        );

        return [
            'package' => [
                'code' => $package->code,
                'name' => $package->name,
                'duty' => $package->duty,
                'text' => $package->body['text'],
            ],
            'status' => $result['status'],
            'conflicts' => $result['conflicts'],
            'alternatives' => array_map(
                fn (array $a) => [
                    'without' => $a['without'],
                    'name' => $known[$a['without']]->name,
                    'price' => $a['price'],
                ],
                $result['alternatives'] ?? [],
            ),
            'options' => array_map(
                fn (Option $o) => [
                    'code' => $o->code,
                    'name' => $o->name,
                    'why' => $o->body['why'],
                    'price' => (float) $o->price,
                    'hours' => (float) $o->hours,
                    'surprise' => $o->body['surprise'] ?? null,
                    'origin' => $origin($o->code),
                    'house' => $asked->house[$o->code] ?? null,
                    'converter' => isset($o->body['converter']),
                ],
                $chosen,
            ),
            'available' => $options
                ->reject(
                    fn (Option $o) => in_array($o->code, $result['chosen'], true) ||
                        in_array($o->code, array_column($result['forbidden'], 'option'), true),
                )
                ->map(
                    fn (Option $o) => [
                        'code' => $o->code,
                        'name' => $o->name,
                        'why' => $o->body['why'],
                        'price' => (float) $o->price,
                        'hours' => (float) $o->hours,
                    ],
                )
                ->values()
                ->all(),
            'forbidden' => $name($result['forbidden']),
            'added' => $name($result['added']),
            'removed' => $name($result['removed']),
            'omitted' => $result['omitted'] ?? [],
            'bom' => $bom,
            'partsCost' => round(array_sum(array_map(fn (array $l) => $l['count'] * $l['price'], $bom)), 2),
            'work' => $this->work($chosen),
            'fluid' => ['name' => $family->body['fluid'], 'litres' => round($result['fluid_l'], 2)],
            'hours' => round($result['hours'], 2),
            'price' => round($result['price'], 2),
            'labourRate' => $rate,
            'always' => $family->body['always'],
            'duty' => $duty?->written(),
            'converterMatch' => $this->converterMatch($result, $options, $duty),
            'margins' => isset($result['margins'])
                ? array_diff_key($result['margins'], ['memberSpeeds' => 0, 'released' => 0])
                : null,
            'sensitivity' => array_map(
                fn (array $r) => ['name' => $known[$r['option']]->name] + $r,
                $result['sensitivity'] ?? [],
            ),
            'elements' => array_column($family->train['elements'], 'name', 'id') + ['lock-up' => 'Lock-up clutch'],
        ];
    }

    /**
     * Work and checks the options bring, each with the option that asks for it.
     *
     * @param  list<Option>  $chosen
     * @return list<array{kind: string, text: string, option: string}>
     */
    private function work(array $chosen): array
    {
        $out = [];
        foreach (['work' => 'operations', 'check' => 'checks', 'final' => 'finalChecks'] as $kind => $field) {
            foreach ($chosen as $option) {
                foreach ($option->body[$field] ?? [] as $text) {
                    $out[] = ['kind' => $kind, 'text' => $text, 'option' => $option->name];
                }
            }
        }

        return $out;
    }

    /**
     * What the chosen converter does behind this engine, and how it pulls the whole mass away.
     *
     * @param  array<string, mixed>  $result  of package.resolve
     * @param  \Illuminate\Support\Collection<string, Option>  $options
     * @return array<string, mixed>|null
     */
    private function converterMatch(array $result, $options, ?Duty $duty): ?array
    {
        if (! isset($result['converter'])) {
            return null;
        }
        $option = $options->firstOrFail('code', $result['converter']['option']);
        $first =
            array_values(array_filter($result['margins']['gears'], fn (array $g) => ($g['ratio'] ?? 0) > 0))[0] ??
            null;
        $launch =
            $duty?->load === null || $first === null || $result['fluid_l'] <= 0
                ? null
                : (new Launch(
                    Engine::read(Input::of($duty->engine())),
                    Converter::read(Input::of(['points' => $option->body['converter']['points']])),
                    VehicleLoad::read(Input::of($duty->load)),
                    $first['ratio'],
                    new LaunchConditions($duty->grade, $result['fluid_l']),
                ))->report();

        return ['name' => $option->name, 'gear' => $first['name'] ?? null, 'launch' => $launch] +
            array_diff_key($option->body['converter'], ['points' => 0]) +
            $result['converter'];
    }

    /**
     * Everything later stations need, as it stands today; frozen with the release.
     *
     * @param  array<string, mixed>  $spec  the order as resolved
     * @return array<string, mixed>
     */
    public function bench(Family $family, string $packageCode, array $spec, JobType $job): array
    {
        $specs = FamilySpec::query()->where('family_id', $family->id)->orderBy('position')->get();
        $schools = SchoolsInForce::inForce();
        $chosen = array_column($spec['options'], 'name', 'code');
        $of = fn (string $kind) => $specs
            ->where('kind', $kind)
            ->map(
                fn (FamilySpec $s) => [
                    'code' => $s->code,
                    'name' => $s->name,
                    'source' => trim("$s->source, $s->edition", ', '),
                    'confidence' => $s->confidence,
                ] + ByOption::apply($schools->body($s->body), $chosen),
            )
            ->values()
            ->all();
        $selective = Part::query()
            ->where('kind', 'selective')
            ->whereNotNull('thickness')
            ->get()
            ->keyBy('number')
            ->all();
        $option = fn (string $number) => [
            'part' => $number,
            'name' => $selective[$number]->name,
            'thickness' => (float) $selective[$number]->thickness,
            'cost' => (float) $selective[$number]->price,
        ];
        $packs = array_map(function (array $pack) use ($option): array {
            $pack['slots'] = array_map(
                fn (array $slot) => [
                    'name' => $slot['name'],
                    'pick' => $slot['pick'],
                    'options' => array_map($option, $slot['parts']),
                ],
                $pack['slots'],
            );

            return $pack;
        }, $of('pack'));
        $program = $of('test-program')[0] ?? null;
        if ($program !== null) {
            $program['limits'] = array_replace($program['limits'], $program['packageLimits'][$packageCode] ?? []);
            unset($program['packageLimits']);
        }

        return [
            'packs' => $packs,
            'endPlays' => array_map(
                fn (array $e) => ['options' => array_map($option, $e['washers'])] +
                    array_diff_key($e, ['washers' => 0]),
                $of('end-play'),
            ),
            'fasteners' => $of('fastener'),
            'airChecks' => $of('air-check'),
            'assembly' => [...$of('assembly-step'), ...self::steps($spec['work'])],
            'scopes' => $job->scopes,
            'testProgram' => $program,
            'converter' => $of('converter')[0] ?? null,
            'train' => $family->train,
        ];
    }

    /**
     * Steps of the assembly that the options ask for: they are marked like any other, and the builder cannot sign
     * without. What can only be checked after the test waits for dispatch.
     *
     * @param  list<array{kind: string, text: string, option: string}>  $work
     * @return list<array<string, mixed>>
     */
    private static function steps(array $work): array
    {
        $bench = array_values(array_filter($work, fn (array $w) => $w['kind'] !== 'final'));

        return array_map(
            fn (array $w, int $i) => [
                'code' => "$w[kind]-".($i + 1),
                'name' => $w['text'],
                'after' => [],
                'because' => $w['option'],
                'source' => 'Order',
                'confidence' => 'documented',
            ],
            $bench,
            array_keys($bench),
        );
    }

    /**
     * @param  list<array{part: string, count: int}>  $bom
     * @return list<array<string, mixed>>
     */
    private function priced(array $bom): array
    {
        $counts = array_column($bom, 'count', 'part');

        return array_values(
            Part::query()
                ->whereIn('number', array_map(strval(...), array_keys($counts)))
                ->orderBy('number')
                ->get()
                ->map(
                    fn (Part $p) => [
                        'part' => $p->number,
                        'name' => $p->name,
                        'kind' => $p->kind,
                        'count' => $counts[$p->number],
                        'price' => (float) $p->price,
                    ],
                )
                ->all(),
        );
    }
}
