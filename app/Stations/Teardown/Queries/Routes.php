<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\Vocabulary;
use App\Kernel\Refusal;
use App\Stations\Teardown\FindingSpec;

/** How parts are made good again: the vocabulary `reconditioning` of the pack. */
final class Routes
{
    /** @var list<array{code: string, name: string, hours: float, kinds: list<string>, after: string}>|null */
    private ?array $all = null;

    /** @return list<array{code: string, name: string, hours: float, kinds: list<string>, after: string}> */
    public function all(): array
    {
        $known = Vocabulary::query()->where('code', 'reconditioning');

        return $this->all ??= array_values(array_map(
            fn (\stdClass $r): array => [
                'code' => $r->code,
                'name' => $r->name,
                'hours' => (float) $r->hours,
                'kinds' => $r->kinds,
                'after' => $r->after,
            ],
            $known->first()->body->routes ?? [],
        ));
    }

    /**
     * The way a part that is reconditioned goes, as it is kept.
     *
     * @param  string  $at  where in what was sent its fields stand
     * @return array{route: ?string, route_hours: ?float}
     *
     * @throws Refusal when the way is missing or none for such a part
     */
    public function chosen(FindingSpec $spec, string $disposition, string $code, string $at): array
    {
        if ($disposition !== 'recondition') {
            return ['route' => null, 'route_hours' => null];
        }
        $ways = array_values(array_filter(
            $this->all(),
            fn (array $r): bool => in_array($spec->kind, $r['kinds'], true),
        ));
        foreach ($ways as $way) {
            if ($way['code'] === $code) {
                return ['route' => $code, 'route_hours' => $way['hours']];
            }
        }
        $names = implode('; ', array_column($ways, 'name'));
        throw Refusal::at("$at/route", match (true) {
            $ways === [] => "\"$spec->name\" is not reconditioned here: replace it, or use it again.",
            $code === '' => "Say how \"$spec->name\" is made good: $names.",
            default => "\"$spec->name\" is not made good that way; choose one of: $names.",
        });
    }
}
