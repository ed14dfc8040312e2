<?php

namespace App\Catalog;

use App\Ledger\Ledger;
use Illuminate\Support\Facades\DB;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Yard\Core\BadInput;
use Yard\Core\Calculators;

/** Imports a catalog pack, all or nothing; every complaint carries its JSON pointer. */
final class ImportPack
{
    /** Kinds of family specifications: key in the pack => kind in the table. */
    private const SPEC_KINDS = [
        'features' => 'feature', 'packs' => 'pack', 'endPlays' => 'end-play', 'fasteners' => 'fastener', 'airChecks' => 'air-check', 'teardown' => 'teardown-step',
        'assembly' => 'assembly-step', 'findings' => 'finding', 'testPrograms' => 'test-program', 'converters' => 'converter',
    ];

    public function __construct(private readonly Ledger $ledger)
    {
    }

    /**
     * @param  callable(string, int, int): void  $progress  what, done, of
     * @return array<string, int> rows written a table
     *
     * @throws BadPack
     */
    public function import(string $json, callable $progress): array
    {
        $pack = $this->check($json);

        return DB::transaction(function () use ($pack, $progress): array {
            $counts = [];
            $write = function (string $table, array $rows, array $key) use (&$counts, $progress): array {
                $done = 0;
                foreach (array_chunk($rows, 500) as $chunk) {
                    DB::table($table)->upsert($chunk, $key);
                    $progress($table, $done += count($chunk), count($rows));
                }
                $counts[$table] = count($rows);
                $column = $key[count($key) - 1];

                return count($key) === 1 ? DB::table($table)->whereIn($column, array_column($rows, $column))->pluck('id', $column)->all() : [];
            };
            $j = fn (mixed $v): string => json_encode($v, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION);

            $write('job_types', array_map(fn ($t) => ['code' => $t->code, 'name' => $t->name, 'route' => $j($t->route), 'warranty_days' => $t->warrantyDays, 'warranty_km' => $t->warrantyKm, 'note' => $t->note ?? ''], $pack->jobTypes), ['code']);
            $parts = $write('parts', array_map(fn ($p) => ['number' => $p->number, 'name' => $p->name, 'kind' => $p->kind, 'price' => $p->price, 'thickness' => $p->thickness ?? null, 'thickness_unit' => $p->thicknessUnit ?? null, 'aliases' => $j($p->aliases ?? []), 'single_use' => $p->singleUse ?? false], $pack->parts), ['number']);
            $write('kit_items', array_merge([], ...array_map(fn ($k) => array_map(fn ($i) => ['kit_id' => $parts[$k->kit], 'part_id' => $parts[$i->part], 'count' => $i->count], $k->items), $pack->kits)), ['kit_id', 'part_id']);
            $write('supersessions', array_map(fn ($s) => ['old_part_id' => $parts[$s->old], 'new_part_id' => $parts[$s->new], 'both_ways' => $s->bothWays, 'source' => $s->source], $pack->supersessions), ['old_part_id', 'new_part_id']);
            $vehicles = $write('vehicles', array_map(fn ($v) => ['code' => $v->code, 'maker' => $v->maker, 'model' => $v->model, 'from_year' => $v->fromYear, 'to_year' => $v->toYear, 'engine' => $v->engine, 'drive' => $v->drive, 'wmi' => $v->wmi, 'engine_torque_nm' => $v->engineTorque_nm, 'mass_kg' => $v->mass_kg, 'axle_ratio' => $v->axleRatio], $pack->vehicles), ['code']);
            $families = $write('families', array_map(fn ($f) => ['code' => $f->code, 'name' => $f->name, 'topology' => $f->topology, 'train' => $j($f->train), 'body' => $j($f->body)], $pack->families), ['code']);
            $variants = $write('variants', array_merge([], ...array_map(fn ($f) => array_map(fn ($v) => ['family_id' => $families[$f->code], 'code' => $v->code, 'name' => $v->name, 'from_year' => $v->fromYear, 'to_year' => $v->toYear, 'prior' => $v->prior, 'expect' => $j($v->expect), 'core_charge' => $v->coreCharge, 'scrap_value' => $v->scrapValue], $f->variants), $pack->families)), ['code']);
            foreach ($pack->families as $f) {
                $id = $families[$f->code];
                $specs = [];
                foreach (self::SPEC_KINDS as $key => $kind) {
                    foreach ($f->{$key} as $i => $s) {
                        $specs[] = ['family_id' => $id, 'kind' => $kind, 'code' => $s->code, 'position' => $i, 'name' => $s->name, 'body' => $j($s->body), 'source' => $s->source, 'edition' => $s->edition, 'confidence' => $s->confidence];
                    }
                }
                $write('specs', $specs, ['family_id', 'kind', 'code']);
                $write('options', array_map(fn ($o) => ['family_id' => $id, 'code' => $o->code, 'name' => $o->name, 'price' => $o->price, 'hours' => $o->hours, 'body' => $j($o->body)], $f->options), ['family_id', 'code']);
                $write('packages', array_map(fn ($p) => ['family_id' => $id, 'code' => $p->code, 'name' => $p->name, 'duty' => $p->duty, 'base_price' => $p->basePrice, 'base_hours' => $p->baseHours, 'body' => $j($p->body)], $f->packages), ['family_id', 'code']);
            }
            $write('applications', array_map(fn ($a) => ['variant_id' => $variants[$a->variant], 'vehicle_id' => $vehicles[$a->vehicle], 'from_year' => $a->fromYear, 'to_year' => $a->toYear, 'source' => $a->source, 'edition' => $a->edition, 'confidence' => $a->confidence], $pack->applications), ['vehicle_id', 'variant_id', 'from_year']);
            $write('evidence_models', array_map(fn ($e) => ['code' => $e->code, 'body' => $j($e->body), 'source' => $e->source], $pack->evidence), ['code']);
            $this->ledger->record('catalog', 'catalog.imported', ['name' => $pack->name, 'edition' => $pack->edition, 'rows' => $counts]);

            return $counts;
        });
    }

    /** @throws BadPack */
    private function check(string $json): \stdClass
    {
        $pack = json_decode($json, false, 64);
        if (! $pack instanceof \stdClass) {
            throw new BadPack([['pointer' => '', 'detail' => 'The file is not a JSON object: '.json_last_error_msg().'.']]);
        }
        $validator = new Validator;
        $validator->setMaxErrors(20);
        $result = $validator->validate($pack, (string) file_get_contents(base_path('docs/formats/catalog-pack.schema.json')));
        if ($result->error() !== null) {
            $errors = [];
            foreach ((new ErrorFormatter)->format($result->error(), true) as $pointer => $messages) {
                $errors[] = ['pointer' => $pointer === '/' ? '' : (string) $pointer, 'detail' => $messages[0].'.'];
            }
            throw new BadPack($errors);
        }
        $errors = (new CheckReferences($pack))->errors();
        foreach ($pack->families as $i => $family) {
            try {
                Calculators::run('geartrain.solve', $family->train);
            } catch (BadInput $e) {
                $errors[] = ['pointer' => "/families/$i/train$e->path", 'detail' => $e->getMessage()];
            }
        }
        if ($errors !== []) {
            throw new BadPack($errors);
        }

        return $pack;
    }
}
