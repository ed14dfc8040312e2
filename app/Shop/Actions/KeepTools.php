<?php

namespace App\Shop\Actions;

use App\Catalog\Models\Vocabulary;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\SpecialTool;
use App\Yard\Gatekeeper;

/** The register of special tools: what there is, where it hangs, until when it was looked at. */
final class KeepTools
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  array<string, mixed>  $in  tag, kind, name, place, inspectedUntil */
    public function add(array $in): void
    {
        $tag = mb_strtoupper($in['tag']);
        if (SpecialTool::query()->where('tag', $tag)->exists()) {
            throw Refusal::at('/tag', "There is a tool $tag already.");
        }
        SpecialTool::query()->create(['tag' => $tag, 'version' => 1] + self::written($in));
        $this->ledger->record('shop', 'tool.added', ['tag' => $tag] + $in);
    }

    /** @param  array<string, mixed>  $in  kind, name, place, inspectedUntil, version */
    public function change(string $tag, array $in): void
    {
        $tool =
            SpecialTool::query()->where('tag', $tag)->lockForUpdate()->first() ??
            throw new Refusal("There is no tool $tag.", 404);
        $written = self::written($in);
        Gatekeeper::unchanged($tool, $in['version'], 'this tool', $written);
        $tool->update($written + ['version' => $tool->version + 1]);
        $this->ledger->record('shop', 'tool.changed', ['tag' => $tag] + $in);
    }

    /** @return list<array{code: string, name: string, without: string}> */
    public static function kinds(): array
    {
        $known = Vocabulary::query()->where('code', 'special-tools')->first();

        return array_values(array_map(
            fn (\stdClass $k): array => [
                'code' => (string) $k->code,
                'name' => (string) $k->name,
                'without' => (string) $k->without,
            ],
            $known->body->kinds ?? [],
        ));
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    private static function written(array $in): array
    {
        if (! in_array($in['kind'], array_column(self::kinds(), 'code'), true)) {
            throw Refusal::at('/kind', "There is no kind of tool \"{$in['kind']}\".");
        }

        return [
            'kind' => $in['kind'],
            'name' => $in['name'],
            'place' => $in['place'],
            'inspected_until' => $in['inspectedUntil'],
        ];
    }
}
