<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\BadPack;
use App\Catalog\Exchange\CatalogMap;
use App\Catalog\Exchange\CatalogStore;
use App\Catalog\Exchange\CheckPack;
use App\Catalog\Exchange\CheckReferences;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;

/** One entry of the catalog is written, changed, or taken out; the version before stays in the history. */
final class EditEntry
{
    /** JSON bodies that may name a part: a part they name is not taken out. */
    private const NAME_PARTS = [
        'specs' => 'body',
        'options' => 'body',
        'packages' => 'body',
        'conversions' => 'parts',
        'families' => 'body',
    ];

    public function __construct(private readonly Ledger $ledger, private readonly CatalogStore $store)
    {
    }

    /**
     * @param  string|null  $key  the entry as it was opened; null for a new one
     * @param  string|null  $seen  its version when it was opened
     * @return string the entry's key
     *
     * @throws BadPack when the entry is not as the format wants it
     */
    public function save(string $kind, ?string $family, ?string $key, \stdClass $node, ?string $seen): string
    {
        CheckPack::entry($kind, $node);
        $familyId = CatalogMap::inFamily($kind) ? self::familyId($family) : null;
        $newKey = $this->store->key($kind, $node, $familyId === null ? null : $family);
        $there = $this->store->nodes($kind, null, null, [$newKey])[$newKey] ?? null;
        $this->mayWrite($kind, $key, $newKey, $node, $there, $seen);
        $this->checkReferences($kind, $family, $node, $newKey);
        $this->store->write($kind, [$node], $familyId, self::position($kind, $familyId, $key, $node));
        $this->ledger->record('catalog', 'catalog.entry-saved', [
            'kind' => $kind,
            'key' => $newKey,
            'before' => $there,
            'after' => $node,
        ]);

        return $newKey;
    }

    private static function familyId(?string $code): int
    {
        return (int) (DB::table('families')->where('code', $code)->value('id') ??
            throw Refusal::at('/family', 'Choose the family this belongs to.'));
    }

    /**
     * @param  string|null  $key  the entry as it was opened; null for a new one
     * @param  \stdClass|null  $there  what the catalog holds under the new key
     */
    private function mayWrite(
        string $kind,
        ?string $key,
        string $newKey,
        \stdClass $node,
        ?\stdClass $there,
        ?string $seen,
    ): void {
        if ($key === null) {
            $there === null || throw Refusal::at('/node', "There is already an entry \"$newKey\".");

            return;
        }
        if ($key !== $newKey) {
            throw Refusal::at(
                '/node',
                "The key of an entry stays as it is; write a new entry for \"$newKey\" and take this one out.",
            );
        }
        if ($there === null) {
            throw new Refusal('This entry was taken out by somebody else meanwhile.', 409);
        }
        if ($seen !== $this->version($kind, $key)) {
            throw Refusal::stale('this entry', (array) $there, (array) $node);
        }
    }

    /** Where an entry of a family's list stands: a new one at the end. */
    private static function position(string $kind, ?int $familyId, ?string $key, \stdClass $node): int
    {
        $spec = CatalogMap::of($kind)['spec'] ?? null;
        if ($familyId === null || $spec === null) {
            return 0;
        }
        $specs = DB::table('specs')->where('family_id', $familyId)->where('kind', $spec);

        return $key === null
            ? 1 + (int) $specs->max('position')
            : (int) $specs->where('code', $node->code)->value('position');
    }

    public function remove(string $kind, string $key): void
    {
        $there = $this->store->nodes($kind, null, null, [$key]);
        if ($there === []) {
            throw new Refusal("There is no entry \"$key\".", 404);
        }
        if ($kind === 'parts') {
            foreach (self::NAME_PARTS as $table => $column) {
                if (
                    DB::table($table)
                        ->where($column, 'like', '%"'.addcslashes($key, '%_\\').'"%')
                        ->exists()
                ) {
                    throw new Refusal(
                        "The part $key is still named by the ".
                            str_replace('_', ' ', $table).
                            '; take it out there first.',
                        409,
                    );
                }
            }
        }
        try {
            $this->store->delete($kind, $key);
        } catch (QueryException $e) {
            if ($e->getCode() === '23000') {
                throw new Refusal('Other entries or units still refer to this; it cannot be taken out.', 409);
            }
            throw $e;
        }
        $this->ledger->record('catalog', 'catalog.entry-removed', [
            'kind' => $kind,
            'key' => $key,
            'before' => $there[$key],
        ]);
    }

    /** When the row in force was written: the optimistic lock of the editor. */
    public function version(string $kind, string $key): ?string
    {
        $map = CatalogMap::of($kind);
        if (isset($map['list'])) {
            $owner = DB::table($map['list']['owners'])
                ->where(explode(':', $map['fields'][$map['key'][0]])[0], $key)
                ->value('id');
            $rows = DB::table($map['table'])->where($map['list']['ownerId'], $owner);

            return $rows->count().
                '/'.
                $rows->max('ROW_START').
                '/'.
                ($map['list']['owners'] === 'parts'
                    ? ''
                    : DB::table($map['list']['owners'])->where('id', $owner)->max('ROW_START'));
        }
        $query = DB::table($map['table']);
        $this->store->narrow($query, $map, [$key]);

        return $query->max('ROW_START');
    }

    /** @throws BadPack */
    private function checkReferences(string $kind, ?string $family, \stdClass $node, string $key): void
    {
        [$pack, $at] = $this->packAround($kind, $family, $node, $key);
        $texts = self::texts($pack);
        $named = fn (string $table, string $column) => array_map(
            strval(...),
            array_keys(CatalogMap::idsOf($table, $column, $texts)),
        );
        $numbers = $named('parts', 'number');
        if ($pack->parts === [] && $pack->families !== []) {
            $pack->parts = array_values($this->store->nodes('parts', null, null, $numbers));
        }
        if ($pack->vocabularies === [] && $pack->families !== []) {
            // The words of the shop: metals that go together, tools, stages of washing.
            $pack->vocabularies = array_values($this->store->nodes('vocabularies', null));
        }
        $errors = (new CheckReferences($pack, [
            'parts' => $numbers,
            'variants' => $named('variants', 'code'),
            'vehicles' => $named('vehicles', 'code'),
        ]))->errors();
        if ($errors !== []) {
            throw new BadPack(array_map(fn (array $e) => self::inEntry($e, $at), $errors));
        }
    }

    /**
     * The entry in a pack of its own, with the family it belongs to.
     *
     * @return array{\stdClass, string} the pack and the pointer of the entry in it
     */
    private function packAround(string $kind, ?string $family, \stdClass $node, string $key): array
    {
        $pack = (object) array_fill_keys(CatalogMap::kinds(), []);
        if ($kind !== 'families' && ! CatalogMap::inFamily($kind)) {
            $pack->{$kind} = [$node];

            return [$pack, "/$kind/0"];
        }
        $at = '/families/0';
        $code = $family ?? $node->code;
        $whole =
            $kind === 'families' ? clone $node : $this->store->nodes('families', null, null, [$code])[$code] ?? null;
        $familyId = DB::table('families')->where('code', $code)->value('id');
        foreach (array_filter(CatalogMap::kinds(), CatalogMap::inFamily(...)) as $k) {
            $entries = $familyId === null ? [] : $this->store->nodes($k, null, (int) $familyId);
            if ($k === $kind) {
                $entries[$key] = $node;
                $at = "/families/0/$k/".array_search($key, array_keys($entries), true);
            }
            $whole->{$k} = array_values($entries);
        }
        $pack->families = [$whole];

        return [$pack, $at];
    }

    /** @return list<string> every text that could be a code: what of it exists counts as known */
    private static function texts(\stdClass $pack): array
    {
        $texts = [];
        $flat = json_decode((string) json_encode($pack), true);
        array_walk_recursive($flat, function (mixed $v) use (&$texts): void {
            is_string($v) && strlen($v) <= 60 && ($texts[$v] = true);
        });

        return array_map(strval(...), array_keys($texts));
    }

    /**
     * @param  array{pointer: string, detail: string}  $error
     * @return array{pointer: string, detail: string} with the pointer in the entry; outside of it, in the sentence
     */
    private static function inEntry(array $error, string $at): array
    {
        ['pointer' => $pointer, 'detail' => $detail] = $error;

        return str_starts_with($pointer, $at)
            ? ['pointer' => substr($pointer, strlen($at)), 'detail' => $detail]
            : ['pointer' => '', 'detail' => "$pointer: $detail"];
    }
}
