<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\CatalogMap;
use App\Catalog\Exchange\CatalogStore;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** A page of catalog entries by key, found by what one would type. */
final class EntryList
{
    /** What of a kind is searched and shown beside its key. */
    private const LABELS = ['name', 'model', 'question', 'note', 'source'];

    public function __construct(private readonly CatalogStore $store)
    {
    }

    /**
     * @return array{entries: list<array{key: string, label: string, confidence: ?string, claims: int}>, after: ?string}
     */
    public function page(string $kind, ?string $family, string $q, ?string $after, ?string $asOf, int $size): array
    {
        $map = CatalogMap::of($kind);
        $query = $this->asked($kind, $family, $asOf);
        $after !== null && $query->where('id', '>', $after);
        if ($q !== '') {
            $this->search($query, $map, $q);
        }
        $rows = $query->limit($size + 1)->get();
        $page = $rows->take($size);
        $codes = CatalogMap::codes($map['fields'], $page);
        $families = CatalogMap::inFamily($kind) ? DB::table('families')->pluck('code', 'id')->all() : [];

        return [
            'entries' => array_values($page
                ->map(function (object $row) use ($kind, $map, $codes, $families): array {
                    $node = CatalogMap::node($map['fields'], $row, $codes);

                    return [
                        'key' => $this->store->key($kind, $node, $families[$row->family_id ?? 0] ?? null),
                        'label' => $this->label($node),
                        'confidence' => $row->confidence ?? null,
                        'claims' => count($node->claims ?? []),
                    ];
                })
                ->values()
                ->all()),
            'after' => $rows->count() > $size ? (string) $page->last()?->id : null,
        ];
    }

    /** The rows of a kind, of one family or of all, as they were on a day. */
    private function asked(string $kind, ?string $family, ?string $asOf): Builder
    {
        $map = CatalogMap::of($kind);
        $list = $map['list'] ?? null;
        $query = $this->store->at($list['owners'] ?? $map['table'], $asOf)->orderBy('id');
        isset($map['spec']) && $query->where('kind', $map['spec']);
        if (($family ?? '') !== '' && CatalogMap::inFamily($kind)) {
            $query->where('family_id', DB::table('families')->where('code', $family)->value('id'));
        }
        if ($list !== null && $list['owners'] === 'parts') {
            $query->whereIn('id', $this->store->at($map['table'], $asOf)->select($list['ownerId']));
        }

        return $query;
    }

    /** @param  array<string, mixed>  $map */
    private function search(Builder $query, array $map, string $q): void
    {
        $like = '%'.addcslashes($q, '%_\\').'%';
        $query->where(function (Builder $any) use ($map, $q, $like): void {
            foreach ($map['fields'] as $field => $spec) {
                [$column, $type] = CatalogMap::parse($spec);
                if ($type === 'text' && ! in_array($column, ['confidence', 'edition'], true)) {
                    $any->orWhere($column, 'like', $like);
                } elseif (in_array($type, ['part', 'variant', 'vehicle'], true)) {
                    $any->orWhereIn(
                        $column,
                        DB::table("{$type}s")
                            ->where($type === 'part' ? 'number' : 'code', 'like', addcslashes($q, '%_\\').'%')
                            ->limit(500)
                            ->pluck('id'),
                    );
                }
            }
        });
    }

    private function label(\stdClass $node): string
    {
        foreach (self::LABELS as $field) {
            if (isset($node->{$field}) && $node->{$field} !== '') {
                return ($field === 'model' ? "$node->maker " : '').
                    $node->{$field}.
                    ($field === 'model' ? ", $node->engine" : '');
            }
        }

        return '';
    }
}
