<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Kept\KeptCatalog;
use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Option;
use App\Catalog\Models\Package;
use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Catalog\Read\ByOption;
use App\Shop\HouseRules;
use App\Stations\Ordering\Duty;
use App\Yard\AskedOrder;
use App\Yard\Models\Build;
use Illuminate\Support\Collection;
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
    public function __construct(private readonly HouseRules $rules, private readonly KeptCatalog $kept)
    {
    }

    /**
     * The order of a build, resolved with today's catalog and house rules.
     *
     * @return array<string, mixed>
     */
    public function ofBuild(Build $build): array
    {
        $asked = $build->asked();
        $unit = $build->unit;

        // An order that stands is asked for by many a screen: the same question has the same answer.
        return $this->kept->kept(
            [
                'order',
                $asked,
                $unit->family_id,
                $unit->variant_id,
                $build->package_id,
                $build->vehicle_id,
                $this->rules->inForce(),
            ],
            fn (): array => $this->of(
                $unit->knownFamily(),
                $asked,
                Duty::of($asked->duty, $build->vehicle),
                $unit->variant,
                $build->package,
            ),
        );
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
        ?Package $package = null,
    ): array {
        $asked = OrderQuestion::of($family, $order, $duty, $variant, $package);

        return $this->written($asked, $this->reckoned($asked));
    }

    /** @return array{array<string, mixed>, array<string, mixed>|null} as package.resolve answers; the converter */
    private function reckoned(OrderQuestion $asked): array
    {
        $result = PackageOrder::read(Input::of($asked->input))->resolve();

        return [$result, $this->converterMatch($result, $asked->options, $asked->duty)];
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>|null}  $reckoned
     * @return array<string, mixed>
     */
    private function written(OrderQuestion $asked, array $reckoned): array
    {
        [$result, $match] = $reckoned;
        [$family, $duty] = [$asked->family, $asked->duty];
        $known = $asked->options->all();
        $chosen = array_map(fn (string $code) => $known[$code], array_values($result['chosen']));
        $bom = $this->priced($result['bom']);
        $name = fn (array $of, string $key = 'option') => array_map(
            fn (array $b) => ['name' => $known[$b[$key]]->name] + $b,
            $of,
        );

        return [
            'package' => self::package($asked->package),
            'status' => $result['status'],
            'conflicts' => $result['conflicts'],
            'alternatives' => $name($result['alternatives'] ?? [], 'without'),
            'options' => array_map(fn (Option $o) => self::chosen($o, $asked), $chosen),
            'available' => self::available($asked->options, $result),
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
            'optimal' => $result['optimal'],
            ...array_intersect_key($result, ['bound' => 0]),
            'labourRate' => $asked->rate,
            'always' => $family->body['always'],
            'duty' => $duty?->written(),
            'converterMatch' => $match,
            'held' => LaunchPaper::of($family->body['held'] ?? [], $asked->package->duty, $match, $chosen),
            'margins' => isset($result['margins'])
                ? array_diff_key($result['margins'], ['memberSpeeds' => 0, 'released' => 0])
                : null,
            'sensitivity' => $name($result['sensitivity'] ?? []),
            'elements' => array_column($family->train['elements'], 'name', 'id') + ['lock-up' => 'Lock-up clutch'],
        ];
    }

    /** @return array<string, mixed> */
    private static function package(Package $package): array
    {
        return [
            'code' => $package->code,
            'name' => $package->name,
            'duty' => $package->duty,
            'text' => $package->body['text'],
        ];
    }

    /** @return array<string, mixed> what an option is, costs and takes */
    private static function option(Option $o): array
    {
        return [
            'code' => $o->code,
            'name' => $o->name,
            'why' => $o->body['why'],
            'price' => (float) $o->price,
            'hours' => (float) $o->hours,
        ];
    }

    /** @return array<string, mixed> an option that is in, and what brought it */
    private static function chosen(Option $o, OrderQuestion $asked): array
    {
        $house = $asked->house[$o->code] ?? null;

        return self::option($o) + [
            'surprise' => $o->body['surprise'] ?? null,
            'origin' => match (true) {
                in_array($o->code, $asked->order->add, true) => 'wish',
                $house !== null => 'house',
                in_array($o->code, $asked->input['package'], true) => 'package',
                in_array($o->code, $asked->input['always'], true) => 'always',
                default => 'rule',
            },
            'house' => $house,
            'converter' => isset($o->body['converter']),
        ];
    }

    /**
     * @param  Collection<string, Option>  $options
     * @param  array<string, mixed>  $result  of package.resolve
     * @return list<array<string, mixed>> options that are not in and could be
     */
    private static function available(Collection $options, array $result): array
    {
        $out = [...$result['chosen'], ...array_column($result['forbidden'], 'option')];

        return array_values($options
            ->reject(fn (Option $o) => in_array($o->code, $out, true))
            ->map(self::option(...))
            ->all());
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
    public function bench(Variant $variant, string $packageCode, array $spec, JobType $job): array
    {
        $family = $variant->family;
        $of = self::bodies($family, array_column($spec['options'], 'name', 'code'));
        $hardware = UnitHardware::of($variant, array_column($spec['options'], 'code'));
        $option = self::selective();
        $slot = fn (array $s) => [
            'name' => $s['name'],
            'pick' => $s['pick'],
            'options' => array_map($option, $s['parts']),
        ];

        return [
            'packs' => array_map(
                fn (array $pack) => ['slots' => array_map($slot, $pack['slots'])] + $pack,
                $of('pack'),
            ),
            'endPlays' => array_map(
                fn (array $e) => ['options' => array_map($option, $e['washers'])] +
                    array_diff_key($e, ['washers' => 0]),
                $of('end-play'),
            ),
            'fasteners' => JointLimits::on($of('fastener'), $this->rules->number('nut-factor')),
            'airChecks' => $of('air-check'),
            'benchTests' => $of('bench-test'),
            'assembly' => [
                ...BorrowedTorque::signed($of('assembly-step'), $of('fastener')),
                ...self::steps($spec['work']),
            ],
            'scopes' => $job->scopes,
            'testProgram' => $hardware->program($of('test-program')[0] ?? null, $packageCode),
            'hardware' => $hardware->built,
            'converter' => $of('converter')[0] ?? null,
            'train' => $family->train,
        ];
    }

    /**
     * @param  array<string, string>  $chosen  options that are in: code => name
     * @return \Closure(string): list<array<string, mixed>> what the catalog says of a kind, as house and options
     *     have it
     */
    private static function bodies(Family $family, array $chosen): \Closure
    {
        $specs = FamilySpec::query()->where('family_id', $family->id)->orderBy('position')->get();
        $schools = SchoolsInForce::inForce();

        return fn (string $kind) => array_values($specs
            ->where('kind', $kind)
            ->map(
                fn (FamilySpec $s) => [
                    'code' => $s->code,
                    'name' => $s->name,
                    'source' => trim("$s->source, $s->edition", ', '),
                    'confidence' => $s->confidence,
                ] + ByOption::apply($schools->body($s->body), $chosen),
            )
            ->all());
    }

    /** @return \Closure(string): array{part: string, name: string, thickness: float, cost: float} */
    private static function selective(): \Closure
    {
        $parts = Part::query()
            ->where('kind', 'selective')
            ->whereNotNull('thickness')
            ->get()
            ->keyBy('number')
            ->all();

        return fn (string $number) => [
            'part' => $number,
            'name' => $parts[$number]->name,
            'thickness' => (float) $parts[$number]->thickness,
            'cost' => (float) $parts[$number]->price,
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

        /** @var list<\stdClass> $parts */
        $parts = $this->kept->answers(
            Part::query()
                ->whereIn('number', array_map(strval(...), array_keys($counts)))
                ->orderBy('number')
                ->toBase()
                ->select(['number', 'name', 'kind', 'price']),
        );

        return array_map(
            fn (\stdClass $p) => [
                'part' => $p->number,
                'name' => $p->name,
                'kind' => $p->kind,
                'count' => $counts[$p->number],
                'price' => (float) $p->price,
            ],
            $parts,
        );
    }
}
