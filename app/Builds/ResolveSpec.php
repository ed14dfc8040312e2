<?php

namespace App\Builds;

use App\Catalog\Family;
use App\Catalog\Option;
use App\Catalog\Package;
use App\Catalog\Part;
use App\Catalog\Spec;
use App\Shop\HouseRule;
use App\Shop\Refused;
use Yard\Core\Packages\ApplyRules;

/** From a package and the customer's wishes: options with reasons, bill of materials, price, hours, and all windows and steps of the build. */
final class ResolveSpec
{
    /**
     * @param  list<string>  $add
     * @param  list<string>  $drop
     * @return array<string, mixed>
     */
    public function of(Family $family, string $packageCode, array $add, array $drop): array
    {
        $package = Package::query()->where('family_id', $family->id)->where('code', $packageCode)->first() ?? throw Refused::at('/package', "There is no package \"$packageCode\" for the {$family->name}.");
        $options = Option::query()->where('family_id', $family->id)->orderBy('id')->get()->keyBy('code');
        foreach (['add' => $add, 'drop' => $drop] as $field => $codes) {
            foreach ($codes as $i => $code) {
                $options->has($code) || throw Refused::at("/$field/$i", "There is no option \"$code\" for the {$family->name}.");
            }
        }
        $result = ApplyRules::to(
            $options->map(fn (Option $o) => ['name' => $o->name, 'why' => $o->body['why'], 'requires' => $o->body['requires'] ?? [], 'excludes' => $o->body['excludes'] ?? [], 'omits' => $o->body['omits'] ?? [], 'omitWhy' => $o->body['omitWhy'] ?? ''])->all(),
            $package->body['options'], array_column($family->body['always'], 'option'), $add, $drop,
        );
        $chosen = array_map(fn (string $code) => $options[$code], $result['chosen']);
        [$bom, $partsPrice] = $this->billOfMaterials($package, $chosen, array_column($result['omitted'], 'part'));
        $labourRate = (float) HouseRule::query()->where('code', 'labour-rate')->valueOrFail('choice');
        $hours = round((float) $package->base_hours + array_sum(array_map(fn (Option $o) => (float) $o->hours, $chosen)), 2);
        $price = round((float) $package->base_price + array_sum(array_map(fn (Option $o) => (float) $o->price, $chosen)), 2);
        $name = fn (array $because) => array_map(fn (array $b) => ['option' => $b['option'], 'name' => $options[$b['option']]->name, 'because' => $b['because']], $because);

        return [
            'package' => ['code' => $package->code, 'name' => $package->name, 'duty' => $package->duty, 'text' => $package->body['text']], 'status' => $result['status'], 'conflicts' => $result['conflicts'],
            'options' => array_map(fn (Option $o) => ['code' => $o->code, 'name' => $o->name, 'why' => $o->body['why'], 'price' => (float) $o->price, 'hours' => (float) $o->hours, 'surprise' => $o->body['surprise'] ?? null, 'origin' => in_array($o->code, $add, true) ? 'wish' : (in_array($o->code, $package->body['options'], true) ? 'package' : (in_array($o->code, array_column($family->body['always'], 'option'), true) ? 'always' : 'rule'))], $chosen),
            'available' => $options->reject(fn (Option $o) => in_array($o->code, $result['chosen'], true))->map(fn (Option $o) => ['code' => $o->code, 'name' => $o->name, 'why' => $o->body['why'], 'price' => (float) $o->price])->values()->all(),
            'added' => $name($result['added']), 'removed' => $name($result['removed']), 'omitted' => $result['omitted'], 'bom' => $bom, 'partsCost' => $partsPrice,
            'operations' => array_merge([], ...array_map(fn (Option $o) => $o->body['operations'] ?? [], $chosen)),
            'fluid' => ['name' => $family->body['fluid'], 'litres' => round($package->body['fluid_l'] + array_sum(array_map(fn (Option $o) => $o->body['fluid_l'] ?? 0, $chosen)), 2)],
            'hours' => $hours, 'price' => $price, 'labourRate' => $labourRate, 'always' => $family->body['always'],
        ];
    }

    /**
     * Everything later stations need, as it stands today; frozen with the release.
     *
     * @return array<string, mixed>
     */
    public function bench(Family $family, string $packageCode): array
    {
        $specs = Spec::query()->where('family_id', $family->id)->orderBy('position')->get();
        $of = fn (string $kind) => $specs->where('kind', $kind)->map(fn (Spec $s) => ['code' => $s->code, 'name' => $s->name, 'source' => trim("$s->source, $s->edition", ', '), 'confidence' => $s->confidence] + $s->body)->values()->all();
        $selective = Part::query()->where('kind', 'selective')->whereNotNull('thickness')->get()->keyBy('number');
        $option = fn (string $number) => ['part' => $number, 'name' => $selective[$number]->name, 'thickness' => (float) $selective[$number]->thickness, 'cost' => (float) $selective[$number]->price];
        $packs = array_map(function (array $pack) use ($option): array {
            $pack['slots'] = array_map(fn (array $slot) => ['name' => $slot['name'], 'pick' => $slot['pick'], 'options' => array_map($option, $slot['parts'])], $pack['slots']);

            return $pack;
        }, $of('pack'));
        $program = $of('test-program')[0] ?? null;
        if ($program !== null) {
            $program['limits'] = array_replace($program['limits'], $program['packageLimits'][$packageCode] ?? []);
            unset($program['packageLimits']);
        }

        return [
            'packs' => $packs, 'endPlays' => array_map(fn (array $e) => ['options' => array_map($option, $e['washers'])] + array_diff_key($e, ['washers' => 0]), $of('end-play')), 'fasteners' => $of('fastener'), 'airChecks' => $of('air-check'),
            'assembly' => $of('assembly-step'), 'testProgram' => $program, 'converter' => $of('converter')[0] ?? null, 'train' => $family->train,
        ];
    }

    /**
     * @param  list<Option>  $chosen
     * @param  list<string>  $omitted
     * @return array{list<array<string, mixed>>, float}
     */
    private function billOfMaterials(Package $package, array $chosen, array $omitted): array
    {
        $counts = [];
        foreach ([['parts' => $package->body['parts']], ...array_map(fn (Option $o) => $o->body, $chosen)] as $body) {
            foreach ($body['parts'] ?? [] as $item) {
                $counts[$item['part']] = ($counts[$item['part']] ?? 0) + $item['count'];
            }
        }
        $counts = array_diff_key($counts, array_flip($omitted));
        $parts = Part::query()->whereIn('number', array_map(strval(...), array_keys($counts)))->orderBy('number')->get();
        $bom = $parts->map(fn (Part $p) => ['part' => $p->number, 'name' => $p->name, 'kind' => $p->kind, 'count' => $counts[$p->number], 'price' => (float) $p->price])->all();

        return [$bom, round(array_sum(array_map(fn (array $l) => $l['count'] * $l['price'], $bom)), 2)];
    }
}
