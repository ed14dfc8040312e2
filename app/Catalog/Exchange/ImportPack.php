<?php

namespace App\Catalog\Exchange;

use App\Kernel\Ledger\Ledger;
use Illuminate\Support\Facades\DB;

/** Imports a catalog pack, all or nothing; every complaint carries its JSON pointer. */
final class ImportPack
{
    public function __construct(private readonly Ledger $ledger, private readonly CatalogStore $store)
    {
    }

    /**
     * @param  callable(string, int, int): void  $progress  what, done, of
     * @return array<string, array{new: int, changed: int, same: int}> by kind
     *
     * @throws BadPack
     */
    public function import(string $json, callable $progress): array
    {
        $pack = CheckPack::decoded($json);

        return DB::transaction(function () use ($pack, $progress): array {
            $counts = [];
            $write = function (string $kind, array $nodes, ?int $familyId = null) use (&$counts, $progress): void {
                $counts[$kind] ??= ['new' => 0, 'changed' => 0, 'same' => 0];
                foreach (array_chunk($nodes, 500) as $i => $chunk) {
                    foreach ($this->store->write($kind, $chunk, $familyId, 500 * $i) as $what => $n) {
                        $counts[$kind][$what] += $n;
                    }
                    $progress($kind, min(500 * ($i + 1), count($nodes)), count($nodes));
                }
            };
            foreach (CatalogMap::kinds() as $kind) {
                if (! CatalogMap::inFamily($kind)) {
                    $write($kind, $pack->{$kind});
                } else {
                    $families = CatalogMap::idsOf('families', 'code', array_column($pack->families, 'code'));
                    foreach ($pack->families as $family) {
                        $write($kind, $family->{$kind}, $families[$family->code]);
                    }
                }
            }
            $this->ledger->record('catalog', 'catalog.imported', [
                'name' => $pack->name,
                'edition' => $pack->edition,
                'rows' => $counts,
            ]);

            return $counts;
        });
    }
}
